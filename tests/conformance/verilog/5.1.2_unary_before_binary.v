// IEEE 1364-2005 clause 5.1.2: ~a & b inverts a alone
module t;
  initial $display("%b %b", ~2'b01 & 2'b11, -1 + 2 == 1);
endmodule
//> 10 1
