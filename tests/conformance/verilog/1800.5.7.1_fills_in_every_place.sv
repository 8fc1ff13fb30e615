// IEEE 1800-2017 clause 5.7.1: as wide as what they are assigned to
module t;
  struct packed { logic [2:0] a; logic [1:0] b; } s;
  logic [3:0] m [2];
  initial begin
    s = '1;
    s.b = '0;
    m = '{'1, 'x};
    $display("%b %b %b", s, m[0], m[1]);
  end
endmodule
//> 11100 1111 xxxx
