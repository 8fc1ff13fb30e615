// IEEE 1800-2017 clause 7.8: keys are numbers or strings
module t;
  int m[real]; //! map-key
  initial m[1.5] = 1;
endmodule
