// IEEE 1800-2017 clause 6.19.3: what is reckoned with constants is a number and needs a cast
module t;
  typedef enum {A, B, C} e;
  e x = A;
  initial x = x + 1; //! enum-cast
endmodule
