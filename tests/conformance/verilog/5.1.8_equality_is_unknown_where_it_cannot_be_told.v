// IEEE 1364-2005 clause 5.1.8: a known difference decides, an unknown digit alone does not
module t;
  initial $display("%b%b %b%b", 2'b1x == 2'b0x, 2'b1x == 2'b1x, 2'b1x != 2'b0x, 2'b1z != 2'b1z);
endmodule
//> 0x 1x
