// IEEE 1364-2005 clause 5.1.7: < <= > >= give x
module t;
  initial $display("%b%b%b%b", 2'b0x < 2'b11, 2'b00 <= 2'b1z, 1'bx > 0, 1'bz >= 1);
endmodule
//> xxxx
