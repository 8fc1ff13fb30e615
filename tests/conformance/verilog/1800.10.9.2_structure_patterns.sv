// IEEE 1800-2017 clause 10.9.2: by order, by name, by type, by default
module t;
  typedef struct { int a; int b; logic [3:0] k; byte c; } s_t;
  s_t s;
  initial begin
    s = '{1, 2, 4'h3, 4};
    $display("%0d %0d %0d %0d", s.a, s.b, s.k, s.c);
    s = '{b: 9, int: 5, default: 7};
    $display("%0d %0d %0d %0d", s.a, s.b, s.k, s.c);
    s = s_t'{default: 0, c: -1};
    $display("%0d %0d %0d %0d", s.a, s.b, s.k, s.c);
  end
endmodule
//> 1 2 3 4
//> 5 9 7 7
//> 0 0 0 -1
