// IEEE 1800-2017 clause 10.9: every element or member is covered
module t;
  int a [3];
  initial a = '{1, 2}; //! pattern-count
endmodule
