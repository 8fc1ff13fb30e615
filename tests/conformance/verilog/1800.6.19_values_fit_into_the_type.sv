// IEEE 1800-2017 clause 6.19: a value that the base type cannot hold
module t;
  enum logic [0:0] {A, B, C} e; //! enum-value
endmodule
