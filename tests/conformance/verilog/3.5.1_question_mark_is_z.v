// IEEE 1364-2005 clause 3.5.1: ? is another way to write z in a number
module t;
  initial $display("%b", 4'b1?0?);
endmodule
//> 1z0z
