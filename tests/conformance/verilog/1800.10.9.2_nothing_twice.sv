// IEEE 1800-2017 clause 10.9.2: with keys and without is not mixed
module t;
  struct { int a; int b; } s;
  initial s = '{a: 1, 2}; //! pattern-mixed
endmodule
