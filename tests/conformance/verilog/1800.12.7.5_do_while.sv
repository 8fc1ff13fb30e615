// IEEE 1800-2017 clause 12.7.5: a `do` loop is gone through once at least
module t;
  int n = 9;
  initial begin
    do n++; while (n < 5);
    $display("%0d", n);
  end
endmodule
//> 10
