// IEEE 1364-2005 clause 5.1.1: nor do the operators on digits
module t;
  real r;
  reg s;
  initial s = r & 1; //! real-operator
endmodule
