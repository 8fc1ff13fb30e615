// IEEE 1364-2005 clause 5.1.10: not with x
module t;
  initial $display("%b %b", 4'b1111 ^ 2'bx1, 4'b1010 | 1'b1);
endmodule
//> 11x0 1011
