// IEEE 1800-2017 clause 11.4.3: division goes towards zero, and the rest has the sign of the left
module t;
  initial $display("%0d %0d %0d %0d", -7 / 2, -7 % 2, 7 / -2, 7 % -2);
endmodule
//> -3 -1 -3 1
