// IEEE 1800-2017 clause 6.24.1: a cast to a width cuts or widens by the sign of what it is given
module t;
  logic signed [3:0] s = -2;
  logic [7:0] a = 8'hf3;
  initial $display("%b %b %b", 6'(s), 4'(a), 10'(a));
endmodule
//> 111110 0011 0011110011
