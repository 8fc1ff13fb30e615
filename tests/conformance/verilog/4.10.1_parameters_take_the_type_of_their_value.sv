// IEEE 1364-2005 clause 4.10.1: a parameter without type or range is as wide and signed as its value
module t;
  parameter a = 4'b1111, b = 4'sb1111;
  initial $display("%0d %0d %0d", $bits(a), a, b);
endmodule
//> 4 15 -1
