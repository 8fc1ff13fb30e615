// IEEE 1800-2017 clause 10.9.2: a default is applied to each element of a member that is an array or structure
module t;
  typedef struct { logic [7:0] v [2]; struct { int p; int q; } in; } s_t;
  s_t s = '{default: 3};
  initial $display("%0d %0d %0d %0d", s.v[0], s.v[1], s.in.p, s.in.q);
endmodule
//> 3 3 3 3
