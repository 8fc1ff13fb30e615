// IEEE 1800-2017 clause 11.4.11: `? :` of an unknown condition merges both values
module t;
  logic c;
  logic [3:0] a = 4'b1010, b = 4'b1001;
  initial $display("%b %b", c ? a : b, c ? a : a);
endmodule
//> 10xx 1010
