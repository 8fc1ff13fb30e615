// IEEE 1364-2005 clause 3.5.2: a digit must follow the point
module t;
  real r;
  initial r = 3.; //! missing-semicolon
endmodule
