// IEEE 1364-2005 clause 3.5.1: a digit must belong to its base
module t;
  reg [3:0] a;
  initial a = 4'b0120; //! bad-number
endmodule
