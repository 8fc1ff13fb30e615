// IEEE 1800-2017 clause 7.2: members may be arrays, packed and unpacked
module t;
  struct { logic [1:0][3:0] p; logic [3:0] u[2]; } s;
  initial begin
    s.p = 8'hab;
    s.u = '{4'hc, 4'hd};
    $display("%h%h %h%h", s.p[1], s.p[0], s.u[0], s.u[1]);
    s.p[0][0] = 0;
    s.u[1][3:2] = 0;
    $display("%h %h", s.p, s.u[1]);
  end
endmodule
//> ab cd
//> aa 1
