// IEEE 1800-2017 clause 7.2: assignment and equality of whole unpacked structures
module t;
  typedef struct { int n; logic [3:0] k; } s_t;
  s_t a, b;
  initial begin
    a = '{3, 4'b1010};
    b = a;
    $display("%b %b", a == b, a != b);
    b.k[0] = 1;
    $display("%b %0d %b", a == b, b.n, b.k);
  end
endmodule
//> 1 0
//> 0 3 1011
