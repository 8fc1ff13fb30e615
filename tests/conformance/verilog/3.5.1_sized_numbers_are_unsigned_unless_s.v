// IEEE 1364-2005 clause 3.5.1: 's makes a number signed, its digits stay
module t;
  initial $display("%0d %0d %0d", 4'b1111, 4'sb1111, -4'sd1);
endmodule
//> 15 -1 -1
