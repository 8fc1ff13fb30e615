// IEEE 1800-2017 clause 22.8: `default_nettype none` takes no name that is not declared
`default_nettype none
module t;
  wire logic a;
  assign b = a; //! undeclared
endmodule
