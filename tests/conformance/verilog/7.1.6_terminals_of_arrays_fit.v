// IEEE 1364-2005 clause 7.1.6: as wide as the array, or one terminal's width
module t;
  reg [2:0] a;
  wire [3:0] y;
  not g [3:0] (y, a); //! gate-width
endmodule
