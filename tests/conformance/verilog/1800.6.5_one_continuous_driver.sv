// IEEE 1800-2017 clause 6.5: two of one variable are refused
module t;
  logic a;
  assign a = 1'b1;
  assign a = 1'b0; //! variable-drivers
endmodule
