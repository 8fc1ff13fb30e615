// IEEE 1364-2005 clause 5.1.5: of every arithmetic operator
module t;
  initial $display("%b %b %b", 4'b0001 + 4'b000x, 4'b1 * 4'bz, -4'b00x0);
endmodule
//> xxxx xxxx xxxx
