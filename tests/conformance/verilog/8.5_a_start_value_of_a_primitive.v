// IEEE 1364-2005 clause 8.5: initial in a sequential primitive
primitive latch(q, en, d);
  output q;
  reg q;
  input en, d;
  initial q = 1'b1;
  table
    1 0 : ? : 0;
    1 1 : ? : 1;
    0 ? : ? : -;
  endtable
endprimitive
module t;
  wire q;
  latch (q, 1'b0, 1'b0);
  initial #1 $display("%b", q);
endmodule
//> 1
