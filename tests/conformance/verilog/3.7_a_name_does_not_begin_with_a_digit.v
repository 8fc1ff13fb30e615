// IEEE 1364-2005 clause 3.7: letters and underscores begin names
module t;
  wire 2nd; //! bad-name
endmodule
