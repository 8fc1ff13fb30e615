// IEEE 1800-2017 clause 6.23: `type(x)` stands for what x is, with its sign, width and states
module t;
  logic signed [3:0] a = -2;
  real r = 1.5;
  typedef enum {SHUT, OPEN} state_t;
  state_t e = OPEN;
  var type(a) b;
  var type(a + 8'd1) c;
  typedef type(r) real_t;
  real_t d = 2.5;
  var type(e) f;
  initial begin
    b = a;
    c = '1;
    f = e;
    $display("%0d %0d %0d %g %s", b, c, $bits(c), d, f.name());
    $display("%0d", $bits(type(a)));
  end
endmodule
//> -2 255 8 2.5 OPEN
//> 4
