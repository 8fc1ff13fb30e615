// IEEE 1800-2017 clause 23.6: a variable of another instance is read and written along its path
module inner;
  int n = 5;
endmodule
module t;
  inner a (), b ();
  initial begin
    t.a.n = 7;
    b.n = a.n + 1;
    $display("%0d %0d", a.n, t.b.n);
  end
endmodule
//> 7 8
