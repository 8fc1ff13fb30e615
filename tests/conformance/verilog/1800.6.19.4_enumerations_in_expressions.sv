// IEEE 1800-2017 clause 6.19.4: a value takes part as its number
module t;
  typedef enum logic [1:0] {SHUT, FILLING, OPEN, DRAINING} state_t;
  state_t s = OPEN;
  int n;
  initial begin
    n = s + 5;
    $display("%0d %b %b", n, s == 2, s > FILLING);
    $display("%0d", s[1]);
    n = FILLING | DRAINING;
    $display("%0d %b", n, {s, s});
  end
endmodule
//> 7 1 1
//> 1
//> 3 1010
