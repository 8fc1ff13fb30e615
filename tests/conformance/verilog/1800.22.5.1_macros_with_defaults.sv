// IEEE 1800-2017 clause 22.5.1: an argument of a macro may have a value of its own
`define PAIR(a, b = 7) a * 10 + b
module t;
  initial $display("%0d %0d", `PAIR(1, 2), `PAIR(3));
endmodule
//> 12 37
