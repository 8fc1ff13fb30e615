// IEEE 1364-2005 clause 17.11.1: one value
module m;
  integer n;
  initial n = $clog2(8, 9);  //! arguments
endmodule
