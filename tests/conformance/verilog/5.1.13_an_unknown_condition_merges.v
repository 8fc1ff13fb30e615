// IEEE 1364-2005 clause 5.1.13: digits that agree stay, others are x
module t;
  initial $display("%b", 1'bx ? 4'b0101 : 4'b0110);
endmodule
//> 01xx
