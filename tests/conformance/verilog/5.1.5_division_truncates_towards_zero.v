// IEEE 1364-2005 clause 5.1.5: and the remainder has the sign of the first operand
module t;
  initial $display("%0d %0d %0d %0d", -7/2, 7/-2, -7%2, 7%-2);
endmodule
//> -3 -3 -1 1
