// IEEE 1800-2017 clause 6.19.2: name[n] and name[n:m]
module t;
  enum {A[3], B[5:4]} e;
  initial $display("%0d %0d %0d %0d", A0, A2, B5, B4);
endmodule
//> 0 2 3 4
