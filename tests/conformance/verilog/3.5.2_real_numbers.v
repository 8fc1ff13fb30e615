// IEEE 1364-2005 clause 3.5.2: digits stand on both sides of the point
module t;
  initial $display("%g %g %g", 1.5, 2e3, 1_0.2_5e-1);
endmodule
//> 1.5 2000 1.025
