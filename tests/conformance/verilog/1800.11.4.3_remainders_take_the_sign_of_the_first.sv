// IEEE 1800-2017 clause 11.4.3: `%` has the sign of what is divided
module t;
  int a = -7, b = 7;
  initial begin
    $display("%0d %0d", a / 2, a % 2);
    $display("%0d %0d", b / -2, b % -2);
    $display("%0d %0d", a / -2, a % -2);
  end
endmodule
//> -3 -1
//> -3 1
//> 3 -1
