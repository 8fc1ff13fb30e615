// IEEE 1364-2005 clause 4.10.1: a parameter with a range has that range
module t;
  parameter [2:0] p = 9;
  parameter signed [3:0] q = 4'b1000;
  initial $display("%0d %0d", p, q);
endmodule
//> 1 -8
