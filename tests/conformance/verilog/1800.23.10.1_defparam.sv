// IEEE 1800-2017 clause 23.10.1: parameters are given from outside by their path
module m #(parameter N = 1) (output [7:0] y); assign y = N; endmodule
module t;
  wire [7:0] a, b;
  m u(a); m #(5) v(b);
  defparam u.N = 7, v.N = 9;
  initial #1 $display("%0d %0d", a, b);
endmodule
//> 7 9
