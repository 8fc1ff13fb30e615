// IEEE 1364-2005 clause 19.3.1: each use with its own
`define twice(a) ((a) + (a))
module t;
  initial $display("%0d", `twice(3) * `twice(`twice(1)));
endmodule
//> 24
