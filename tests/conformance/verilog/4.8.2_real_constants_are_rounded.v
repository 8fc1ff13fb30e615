// IEEE 1364-2005 clause 4.8.2: to the nearest, ties away from zero
module m;
  localparam real R = 2.0 ** 3;
  localparam integer I = 7.0 / 2, J = -2.5, K = (R > 7.5) ? 1.49 : 9.0;
  localparam real B = I > 3 ? 0.25 : 0.5;
  initial $display("%0d %0d %0d %0d %g", I, J, K, $rtoi(R), B);
endmodule
//> 4 -3 1 8 0.25
