// IEEE 1800-2017 clause 7.2: as arguments and results
module t;
  typedef struct { int lo; int hi; } pair_t;
  function automatic pair_t sorted(int a, int b);
    pair_t p;
    p.lo = a < b ? a : b;
    p.hi = a < b ? b : a;
    return p;
  endfunction
  function automatic int span(pair_t p);
    return p.hi - p.lo;
  endfunction
  pair_t q;
  initial begin
    q = sorted(9, 4);
    $display("%0d %0d %0d", q.lo, q.hi, span(sorted(3, 10)));
  end
endmodule
//> 4 9 7
