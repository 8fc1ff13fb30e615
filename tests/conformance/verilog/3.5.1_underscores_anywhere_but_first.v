// IEEE 1364-2005 clause 3.5.1: an underscore between digits means nothing
module t;
  initial $display("%0d %b", 1_000, 8'b0101_1010);
endmodule
//> 1000 01011010
