// IEEE 1800-2017 clause 7.2.1: the first member is the most significant
module t;
  typedef struct packed { logic [3:0] hi; logic [3:0] lo; } pair_t;
  pair_t p;
  initial begin
    p = 8'hA5;
    $display("%h %h %0d", p.hi, p.lo, $bits(p));
    p.lo = 4'h3;
    $display("%h %b %b", p, p[7], p[3:2]);
  end
endmodule
//> a 5 8
//> a3 1 00
