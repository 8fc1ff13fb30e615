// IEEE 1800-2017 clause 11.4.3.1: `**` by the signs of both
module t;
  int a = 2, b = -1;
  initial $display("%0d %0d %0d %0d", a ** 10, a ** b, (-1) ** 3, 1 ** b);
endmodule
//> 1024 0 -1 1
