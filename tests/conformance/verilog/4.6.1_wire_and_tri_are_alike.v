// IEEE 1364-2005 clause 4.6.1: two drivers that agree, and two that do not
module t;
  wire a;
  tri b;
  assign a = 1'b1, a = 1'b0;
  assign b = 1'bz, b = 1'b0;
  initial #1 $display("%b%b", a, b);
endmodule
//> x0
