// IEEE 1364-2005 clause 17.1.1: and with a sign where there is one
module t;
  initial $display("[%d] [%d] [%0d] [%5d]", 4'd7, 4'sd7, 4'd7, 4'd7);
endmodule
//> [ 7] [ 7] [7] [    7]
