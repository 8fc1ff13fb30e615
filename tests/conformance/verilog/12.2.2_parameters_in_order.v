// IEEE 1364-2005 clause 12.2.2: of their declaration
module m;
  parameter a = 1, b = 2;
  initial #1 $display("%0d %0d", a, b);
endmodule
module t;
  m #(5) u();
endmodule
//> 5 2
