// IEEE 1800-2017 clause 6.18: `typedef` may name a type before it is known
module t;
  typedef logic [3:0] nibble_t;
  typedef nibble_t pair_t [1:0];
  typedef struct packed { nibble_t hi, lo; } byte_t;
  pair_t p;
  byte_t b;
  initial begin
    p = '{4'h3, 4'hc};
    b = {p[1], p[0]};
    $display("%h %h %0d", b, b.lo, $bits(pair_t));
  end
endmodule
//> 3c c 8
