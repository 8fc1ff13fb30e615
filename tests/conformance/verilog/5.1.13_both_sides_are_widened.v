// IEEE 1364-2005 clause 5.1.13: to the wider one
module t;
  initial $display("%b %b", 1 ? 1'b1 : 4'b0, 0 ? 2'b00 : 1'b1);
endmodule
//> 0001 01
