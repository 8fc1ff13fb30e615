// IEEE 1800-2017 clause 6.12: real variables, in arithmetic with whole numbers
module t;
  real r = 1.5;
  int i = 2;
  initial begin
    r = r * i + 0.25; $display("%0.3f", r);
    i = r; $display("%0d", i);
    $display("%b %b", r > 3, r == 3.25);
  end
endmodule
//> 3.250
//> 3
//> 1 1
