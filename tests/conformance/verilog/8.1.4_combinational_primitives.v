// IEEE 1364-2005 clause 8.1.4: what stands in no row is x
primitive p(y, a, b);
  output y;
  input a, b;
  table
    0 0 : 0;
    1 ? : 1;
  endtable
endprimitive
module t;
  reg a, b;
  wire y;
  p (y, a, b);
  initial begin
    a = 0; b = 0;
    #1 $write("%b", y);
    a = 1; b = 1'bx;
    #1 $write("%b", y);
    a = 0; b = 1;
    #1 $display("%b", y);
  end
endmodule
//> 01x
