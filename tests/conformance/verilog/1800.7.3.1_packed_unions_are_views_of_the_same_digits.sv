// IEEE 1800-2017 clause 7.3.1: what one member writes another one reads
module t;
  typedef union packed { logic [7:0] whole; logic [1:0][3:0] nibbles; struct packed { logic s; logic [6:0] m; } f; } u_t;
  u_t u;
  initial begin
    u.whole = 8'h9C;
    $display("%h %h %b %h", u.nibbles[1], u.nibbles[0], u.f.s, u.f.m);
    u.f.s = 0;
    $display("%h", u.whole);
  end
endmodule
//> 9 c 1 1c
//> 1c
