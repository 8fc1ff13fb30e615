// IEEE 1364-2005 clause 3.5.1: a number has at least one digit
module t;
  reg a;
  initial a = 0'b0; //! bad-number
endmodule
