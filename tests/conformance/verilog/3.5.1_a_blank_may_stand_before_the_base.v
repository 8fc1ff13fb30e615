// IEEE 1364-2005 clause 3.5.1: size, base and digits are tokens of their own
module t;
  initial $display("%0d %0d", 8 'd 12, 4'b 1001);
endmodule
//> 12 9
