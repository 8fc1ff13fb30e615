// IEEE 1800-2017 clause 7.2.1: as a whole it counts as an unsigned vector unless it is signed
module t;
  struct packed signed { logic [3:0] a; logic [3:0] b; } s;
  struct packed { logic [3:0] a; logic [3:0] b; } u;
  initial begin
    s = 8'hFE;
    u = 8'hFE;
    $display("%0d %0d %b %b", s, u, s < 0, u < 0);
  end
endmodule
//> -2 254 1 0
