// IEEE 1364-2005 clause 5.1.1: `%` takes no real operand
module t;
  real r;
  initial r = r % 3; //! real-operator
endmodule
