// IEEE 1364-2005 clause 8.2: a row with x matches an input that is z
primitive p(y, a);
  output y;
  input a;
  table
    x : 1;
    0 : 0;
    1 : 0;
  endtable
endprimitive
module t;
  reg a;
  wire y;
  p (y, a);
  initial begin
    a = 1'bz;
    #1 $display("%b", y);
  end
endmodule
//> 1
