// IEEE 1800-2017 clause 20.8.1: how many digits it takes to count so many
module t;
  parameter N = 9;
  logic [$clog2(N) - 1:0] v;
  initial $display("%0d %0d %0d %0d", $clog2(1), $clog2(8), $clog2(9), $bits(v));
endmodule
//> 0 3 4 4
