// IEEE 1364-2005 clause 19.3.1: without brackets they mix with what stands around
`define sum 1 + 2
module t;
  initial $display("%0d", `sum * 3);
endmodule
//> 7
