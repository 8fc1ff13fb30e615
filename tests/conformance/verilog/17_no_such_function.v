// IEEE 1364-2005 clause 17: a system function that there is none of
module m;
  integer n;
  initial n = $clogg2(8);  //! no-system-function
endmodule
