// IEEE 1364-2005 clause 19.2: makes undeclared names errors
`default_nettype none
module t;
  assign y = 1'b1; //! undeclared
endmodule
