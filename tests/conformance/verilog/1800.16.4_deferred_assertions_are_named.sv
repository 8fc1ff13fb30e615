// IEEE 1800-2017 clause 16.4: an assertion that waits for the end of the moment is not read, and named
module t;
  logic a = 1;
  initial assert #0 (a); //! not-yet
endmodule
