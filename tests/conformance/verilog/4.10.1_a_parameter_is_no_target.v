// IEEE 1364-2005 clause 4.10.1: constants are not assigned in the run
module t;
  parameter p = 1;
  initial p = 2; //! bad-target
endmodule
