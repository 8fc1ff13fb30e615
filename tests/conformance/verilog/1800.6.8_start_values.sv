// IEEE 1800-2017 clause 6.8: variables begin with x, or with 0 where they are of two states
module t;
  logic l; bit b; int i; byte y; integer n; string s; real r; logic [1:0] v[2];
  initial $display("%b %b %0d %0d %0d [%s] %0.1f %b", l, b, i, y, n, s, r, v[1]);
endmodule
//> x 0 0 0 x [] 0.0 xx
