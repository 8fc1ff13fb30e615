// IEEE 1800-2017 clause 9.2.2.2: what `always_comb` writes nobody else writes
module t;
  logic a, b, y;
  always_comb y = a;
  always_comb y = b; //! written by
endmodule
