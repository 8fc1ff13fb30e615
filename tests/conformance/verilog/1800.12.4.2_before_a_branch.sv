// IEEE 1800-2017 clause 12.4.2: `unique` stands before `if` or `case`
module t;
  logic a, y;
  always_comb unique y = a; //! check-of-what
endmodule
