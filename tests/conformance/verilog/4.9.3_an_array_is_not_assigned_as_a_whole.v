// IEEE 1364-2005 clause 4.9.3: only elements are
module t;
  reg [7:0] a [0:3];
  initial a = 0; //! whole-array
endmodule
