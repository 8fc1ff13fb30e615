// IEEE 1364-2005 clause 5.1.2: and the conditional the other way round
module t;
  initial $display("%0d %0d %0d", 9-3-2, 16/4/2, 0?1:1?2:3);
endmodule
//> 4 2 2
