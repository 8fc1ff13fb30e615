// IEEE 1800-2017 clause 6.19.5: first, last, next, prev, num
module t;
  typedef enum logic [2:0] {IDLE = 1, FILL = 3, OPEN = 6} s_t;
  s_t s = FILL;
  initial begin
    $display("%0d %0d %0d %0d %0d", s.first(), s.last(), s.next(), s.prev, s.num());
    s = s.next;
    $display("%0d %0d %0d", s, s.next(), s.prev(2));
    s = s_t'(5);
    $display("%b", s.next());
  end
endmodule
//> 1 6 6 1 3
//> 6 1 1
//> xxx
