// IEEE 1800-2017 clause 20.6.2: of types, variables, expressions
module t;
  typedef struct { int a; byte b [3]; } s_t;
  s_t s;
  logic [4:0] a;
  initial $display("%0d %0d %0d %0d", $bits(s_t), $bits(s.b), $bits(a + 8'd1), $bits({a, a}));
endmodule
//> 56 24 8 10
