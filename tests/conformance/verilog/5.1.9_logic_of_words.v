// IEEE 1364-2005 clause 5.1.9: any digit 1 is true, all digits 0 are false, else it is unknown
module t;
  initial $display("%b%b%b%b %b%b", !4'b0000, !4'b0x10, !4'b00x0, !1'bz, 2'b0x && 0, 2'b0x || 2'b10);
endmodule
//> 10xx 01
