// IEEE 1800-2017 clause 11.3.4: one operand without a sign makes the whole without one
module t;
  logic signed [7:0] s = -4;
  logic [7:0] u = 2;
  initial $display("%b %b %0d", s < 2, s < u, s / 2);
endmodule
//> 1 0 -2
