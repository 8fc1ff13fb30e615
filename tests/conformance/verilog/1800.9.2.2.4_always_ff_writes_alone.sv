// IEEE 1800-2017 clause 9.2.2.4: what `always_ff` writes nobody else writes
module t;
  logic clk, d, q;
  always_ff @(posedge clk) q <= d;
  assign q = d; //! assigned continuously
endmodule
