// IEEE 1800-2017 clause 6.24.1: a real number is rounded by a cast, halves away from zero
module t;
  real r = 2.5, s = -3.5;
  initial $display("%0d %0d %0d", int'(r), int'(s), int'(2.4));
endmodule
//> 3 -4 2
