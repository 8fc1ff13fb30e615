// IEEE 1364-2005 clause 5.1.14: a variable cannot be one
module t;
  integer n;
  reg [3:0] a;
  initial a = {n{1'b1}}; //! not-constant
endmodule
