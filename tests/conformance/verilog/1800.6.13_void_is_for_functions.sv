// IEEE 1800-2017 clause 6.13: no variable is void
module t;
  void v; //! expected-item
endmodule
