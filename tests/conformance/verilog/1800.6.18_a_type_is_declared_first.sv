// IEEE 1800-2017 clause 6.18: a type is used behind its declaration only
module t;
  word x; //! no-type
  typedef logic [7:0] word;
endmodule
