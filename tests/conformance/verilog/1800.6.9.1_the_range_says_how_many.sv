// IEEE 1800-2017 clause 6.9.1: a vector may run upwards, and below zero
module t;
  logic [0:3] up = 4'b1000;
  logic [-1:-4] low = 4'b0001;
  initial $display("%b %b %b", up[0], low[-4], low[-1]);
endmodule
//> 1 1 0
