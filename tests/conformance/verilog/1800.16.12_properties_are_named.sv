// IEEE 1800-2017 clause 16.12: a property over time is not read, and named once
module t(input logic clk, a, b);
  assert property (@(posedge clk) a |-> b); //! `property` is not read
endmodule
