// IEEE 1364-2005 clause 4.8.1: a bit of a real cannot be selected
module t;
  real r;
  reg b;
  initial b = r[0]; //! real-select
endmodule
