// IEEE 1364-2005 clause 4.3.1: a variable cannot give a range
module t;
  integer n;
  reg [n:0] v; //! not-constant
endmodule
