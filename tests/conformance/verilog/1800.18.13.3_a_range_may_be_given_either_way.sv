// IEEE 1800-2017 clause 18.13.3: $urandom_range
module m;
  int a, b, i;
  initial begin
    b = 1;
    for (i = 0; i < 50; i++) begin a = $urandom_range(6, 4); if (a < 4 || a > 6) b = 0; end
    $display("%0d %0d", b, $urandom_range(3, 3));
  end
endmodule
//> 1 3
