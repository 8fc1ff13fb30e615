// IEEE 1800-2017 clause 29.3: a primitive is looked up in its table
primitive mux(y, s, a, b);
  output y; input s, a, b;
  table
    0 0 ? : 0; 0 1 ? : 1; 1 ? 0 : 0; 1 ? 1 : 1; x 0 0 : 0; x 1 1 : 1;
  endtable
endprimitive
module t;
  logic s, a, b; wire y;
  mux (y, s, a, b);
  initial begin
    {s, a, b} = 3'b010; #1 $write("%b", y);
    {s, a, b} = 3'b110; #1 $write("%b", y);
    {s, a, b} = 3'bx11; #1 $write("%b", y);
    {s, a, b} = 3'bx10; #1 $display("%b", y);
  end
endmodule
//> 101x
