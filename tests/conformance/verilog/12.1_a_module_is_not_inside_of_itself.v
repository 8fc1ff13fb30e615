// IEEE 1364-2005 clause 12.1: recursion without an end
module m; //! limit
  m u();
endmodule
module t;
  m u();
endmodule
