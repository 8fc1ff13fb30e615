// IEEE 1800-2017 clause 7.11: `$size` and its kin ask the run about a queue
module t;
  int q[$] = {7, 8, 9}, d[], m[string];
  initial begin
    d = new[2];
    m["a"] = 1;
    $display("%0d %0d %0d", $size(q), $size(d), $size(m));
    $display("%0d %0d %0d", $left(q), $right(q), $high(d));
  end
endmodule
//> 3 2 1
//> 0 2 1
