// IEEE 1800-2017 clause 6.19.1: a constant without a value is one more than the one before
module t;
  typedef enum logic [3:0] {A, B = 4, C, D = 9, E} e;
  initial $display("%0d %0d %0d %0d %0d", A, B, C, D, E);
endmodule
//> 0 4 5 9 10
