// IEEE 1800-2017 clause 7.6: the same number of elements of an equivalent type
module t;
  logic [7:0] a [0:3], b [0:4];
  initial a = b; //! array-differs
endmodule
