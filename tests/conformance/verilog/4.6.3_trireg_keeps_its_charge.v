// IEEE 1364-2005 clause 4.6.3: with all drivers off the last value stays
module t;
  reg en, d;
  trireg q;
  bufif1 (q, d, en);
  initial begin
    en = 1; d = 1;
    #1 en = 0;
    #1 d = 0;
    #1 $display("%b", q);
  end
endmodule
//> 1
