// IEEE 1364-2005 clause 5.1.12: and a large one shifts everything out
module t;
  initial $display("%b %b %b", 4'b1111 << 2'b0x, 4'b1111 >> 4, 4'b1111 << 100);
endmodule
//> xxxx 0000 0000
