// IEEE 1364-2005 clause 8.4: a row with an edge acts at that edge only
primitive dff(q, c, d);
  output q;
  reg q;
  input c, d;
  table
    (01) 0 : ? : 0;
    (01) 1 : ? : 1;
    (1?) ? : ? : -;
    ? (??) : ? : -;
    (0x) ? : ? : -;
  endtable
endprimitive
module t;
  reg c, d;
  wire q;
  dff (q, c, d);
  initial begin
    c = 0; d = 1;
    #1 c = 1;
    #1 d = 0;
    #1 $write("%b", q);
    c = 0;
    #1 c = 1;
    #1 $display("%b", q);
  end
endmodule
//> 10
