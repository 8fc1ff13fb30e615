// IEEE 1800-2017 clause 7.2: a structure needs no name
module t;
  struct packed { logic sign; logic [2:0] size; } a;
  struct { int x; int y; } p = '{3, 4};
  initial begin
    a = 4'b1101;
    $display("%b %0d", a.sign, a.size);
    p.x += p.y;
    $display("%0d %0d", p.x, p.y);
  end
endmodule
//> 1 5
//> 7 4
