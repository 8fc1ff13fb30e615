// IEEE 1364-2005 clause 5.1.14: the width of every part must be known
module t;
  reg [7:0] a;
  initial a = {4'b1, 3}; //! unsized
endmodule
