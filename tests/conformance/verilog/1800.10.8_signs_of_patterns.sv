// IEEE 1800-2017 clause 10.8: each value is assigned as its member is
module t;
  struct { byte a; logic [7:0] b; shortint c; } s;
  initial begin
    s = '{-1, -1, 8'shFF};
    $display("%0d %0d %0d", s.a, s.b, s.c);
  end
endmodule
//> -1 255 -1
