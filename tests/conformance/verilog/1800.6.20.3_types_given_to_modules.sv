// IEEE 1800-2017 clause 6.20.3: a type may be a structure, with arithmetic of its own
module keep #(type T = logic [3:0]) (input logic c, input T d, output T q);
  always_ff @(posedge c) q <= d;
endmodule
module t;
  typedef struct packed { logic [2:0] a; logic b; } s;
  logic c = 0; s d = '{5, 1}, q; logic [3:0] e = 6, r; int i = -4, k;
  keep #(s) u(c, d, q); keep v(c, e, r); keep #(.T(int)) w(c, i, k);
  initial begin #1 c = 1; #1 $display("%0d%b %0d %0d", q.a, q.b, r, k); end
endmodule
//> 51 6 -4
