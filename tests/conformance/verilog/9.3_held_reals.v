// IEEE 1364-2005 clause 9.3: assign and force on real variables; 4.6.4: tri0 and tri1 at power-up; 7.6: switches with floating data
module t;
  real r, k; tri1 u; tri0 v; tri1 [1:0] w; reg e, z; wire n, p, c; nmos (n, z, e); pmos (p, z, e); cmos (c, z, e, ~e);
  initial begin
    $display("%b%b%b", u, v, w);
    r = 1; k = 2.5; assign r = k * 2; #1 $display("%g", r); k = 3; #1 $display("%g", r); r = 7; #1 $display("%g", r);
    force r = 1.5; #1 $display("%g", r); release r; #1 $display("%g", r); deassign r; #1 $display("%g", r); r = 8; $display("%g", r);
    force r = k; k = 4; #1 $display("%g", r); release r; #1 $display("%g", r); r = 9; $display("%g", r);
    z = 1'bz; e = 1'bx; #1 $display("%b%b%b", n, p, c); e = 1'bz; #1 $display("%b%b%b", n, p, c); e = 1; z = 1'bx; #1 $display("%b%b%b", n, p, c);
  end
endmodule
//> 1011
//> 5
//> 6
//> 6
//> 1.5
//> 6
//> 6
//> 8
//> 4
//> 4
//> 9
//> zzz
//> zzz
//> xzx
