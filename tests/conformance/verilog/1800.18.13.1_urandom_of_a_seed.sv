// IEEE 1800-2017 clause 18.13.1: the same seed gives the same numbers again
module t;
  int seed;
  int a[4], b[4];
  initial begin
    seed = 7; foreach (a[i]) a[i] = $random(seed);
    seed = 7; foreach (b[i]) b[i] = $random(seed);
    $display("%0d %0d", a == b, a[0] == a[1]);
  end
endmodule
//> 1 0
