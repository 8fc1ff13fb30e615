// IEEE 1800-2017 clause 6.6.3: wand is 0 where one of its drivers is, wor is 1
module t;
  wand a; wor b; tri0 c; tri1 d;
  logic x, y;
  assign a = x; assign a = y;
  assign b = x; assign b = y;
  assign c = 1'bz; assign d = 1'bz;
  initial begin
    x = 0; y = 1; #1 $display("%b %b %b %b", a, b, c, d);
    x = 1'bx; #1 $display("%b %b", a, b);
    y = 0; #1 $display("%b %b", a, b);
    x = 1'bz; #1 $display("%b %b", a, b);
  end
endmodule
//> 0 1 0 1
//> x 1
//> 0 x
//> 0 0
