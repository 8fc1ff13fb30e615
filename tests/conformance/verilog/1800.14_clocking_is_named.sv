// IEEE 1800-2017 clause 14: `clocking` is not read, and named
module t;
  logic clk, d;
  clocking cb @(posedge clk); //! not-yet
    input d;
  endclocking
endmodule
