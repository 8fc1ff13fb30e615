// IEEE 1364-2005 clause 3.5.1: digits left of the size are lost
module t;
  initial $display("%b %h", 3'b11010, 8'habc);
endmodule
//> 010 bc
