// IEEE 1800-2017 clause 23.6: what is not found inside is looked for above
module inner;
  initial #1 $display("%0d %0d", t.n, limit);
  localparam int limit = 3;
endmodule
module t;
  int n = 42;
  inner i();
endmodule
//> 42 3
