// IEEE 1364-2005 clause 3.5.1: a number that is too short for its size
module t;
  initial $display("%b %b %b %b", 8'bx1, 8'bz1, 8'b11, 8'hx);
endmodule
//> xxxxxxx1 zzzzzzz1 00000011 xxxxxxxx
