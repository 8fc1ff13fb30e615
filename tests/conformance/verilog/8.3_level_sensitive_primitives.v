// IEEE 1364-2005 clause 8.3: a latch keeps its state with -
primitive latch(q, en, d);
  output q;
  reg q;
  input en, d;
  table
    1 0 : ? : 0;
    1 1 : ? : 1;
    0 ? : ? : -;
  endtable
endprimitive
module t;
  reg en, d;
  wire q;
  latch (q, en, d);
  initial begin
    en = 1; d = 1;
    #1 en = 0; d = 0;
    #1 $write("%b", q);
    en = 1;
    #1 $display("%b", q);
  end
endmodule
//> 10
