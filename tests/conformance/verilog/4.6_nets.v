// IEEE 1364-2005 clause 4.6, 7.9, 7.10: kinds of nets, strengths, and drivers that meet
module t;
  reg a, b, e; wire w; wand wa; wor wo; tri0 t0; tri1 t1; supply0 s0; supply1 s1; wire pu, pd, st, m; triand ta; trior to; trireg cap;
  assign w = a; assign w = b; assign wa = a, wa = b; assign wo = a, wo = b; assign ta = a, ta = b; assign to = a, to = b;
  bufif1 (t0, a, e); bufif1 (t1, a, e); pullup (pu); bufif1 (pu, a, e); pulldown (pd); bufif1 (pd, a, e);
  assign (strong1, weak0) st = a; assign (pull1, pull0) st = b; bufif1 (cap, a, e);
  nmos (m, a, e); pmos (m, b, e);
  initial begin
    $display("a b e w wa wo ta to t0 t1 pu pd st m cap s0 s1");
    a = 0; b = 0; e = 1; show; a = 1; show; b = 1; show; e = 0; show; a = 0; show; a = 1'bz; b = 1'bz; show; a = 1'bx; b = 0; show;
    a = 1; e = 1'bx; b = 1'bz; show; a = 0; show;
  end
  task show; #1 $display("%b %b %b %b %b  %b  %b  %b  %b  %b  %b  %b  %b  %b %b   %b  %b", a, b, e, w, wa, wo, ta, to, t0, t1, pu, pd, st, m, cap, s0, s1); endtask
endmodule
//> a b e w wa wo ta to t0 t1 pu pd st m cap s0 s1
//> 0 0 1 0 0  0  0  0  0  0  0  0  0  0 0   0  1
//> 1 0 1 x 0  1  0  1  1  1  1  1  1  1 1   0  1
//> 1 1 1 1 1  1  1  1  1  1  1  1  1  1 1   0  1
//> 1 1 0 1 1  1  1  1  0  1  1  0  1  1 1   0  1
//> 0 1 0 x 0  1  0  1  0  1  1  0  1  1 1   0  1
//> z z 0 z z  z  z  z  0  1  1  0  z  z 1   0  1
//> x 0 0 x 0  x  0  x  0  1  1  0  x  0 1   0  1
//> 1 z x 1 1  1  1  1  x  1  1  x  1  x 1   0  1
//> 0 z x 0 0  0  0  0  0  x  x  0  0  x x   0  1
