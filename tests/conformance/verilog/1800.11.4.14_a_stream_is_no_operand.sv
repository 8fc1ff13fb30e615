// IEEE 1800-2017 clause 11.4.14: without a cast
module t;
  logic [7:0] a = 1, y;
  initial y = {<<{a}} + 1; //! stream-operand
endmodule
