// IEEE 1800-2017 clause 11.4.12: a number without a size has none in a concatenation
module t;
  logic [7:0] a;
  initial a = {4'd1, 3}; //! unsized
endmodule
