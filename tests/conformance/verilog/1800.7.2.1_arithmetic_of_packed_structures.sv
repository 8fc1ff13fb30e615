// IEEE 1800-2017 clause 7.2.1: a packed structure takes part in sums as a whole
module t;
  typedef struct packed { logic [3:0] hi, lo; } pair;
  pair p = 8'h2f, q;
  initial begin
    q = p + 8'd1; $display("%h %h", q.hi, q.lo);
    q.lo -= 1; $display("%h", q);
    q = ~p; $display("%h", q);
    $display("%0d %0d", p > q, p[4]);
    q = p << 4; $display("%h", q);
    {q.hi, q.lo} = {p.lo, p.hi}; $display("%h", q);
  end
endmodule
//> 3 0
//> 3f
//> d0
//> 0 0
//> f0
//> f2
