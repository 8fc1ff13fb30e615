// IEEE 1800-2017 clause 11.4.4: a comparison with unknown digits is unknown
module t;
  logic [3:0] a = 4'b10x1;
  initial $display("%b %b %b %b", a < 4, a == 4'b0001, a != 4'b0001, a === 4'b10x1);
endmodule
//> x 0 1 1
