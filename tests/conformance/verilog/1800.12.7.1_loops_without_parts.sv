// IEEE 1800-2017 clause 12.7.1: a `for` may have no beginning and no step
module t;
  int i = 2;
  initial begin
    for (; i < 5;) i += 2;
    $display("%0d", i);
  end
endmodule
//> 6
