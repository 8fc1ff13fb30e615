// IEEE 1800-2017 clause 6.19: it is an error to have the same value twice
module t;
  enum {A = 1, B = 0, C} e; //! enum-value
endmodule
