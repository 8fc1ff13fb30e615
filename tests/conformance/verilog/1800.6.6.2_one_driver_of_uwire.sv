// IEEE 1800-2017 clause 6.6.2: a uwire has one driver
module t;
  uwire a;
  assign a = 1'b0;
  assign a = 1'b1; //! two-drivers
endmodule
