// IEEE 1800-2017 clause 11.4.2: an increment inside an expression gives the value after it or before it
module t;
  int i = 4, j, a[3] = '{7, 8, 9};
  initial begin
    j = i++ * 2; $display("%0d %0d", i, j);
    j = --i - 1; $display("%0d %0d", i, j);
    i = 1;
    a[i++] = 0; $display("%0d %0d %0d", i, a[1], a[2]);
    while (i-- > 0) $write("%0d ", i);
    $display("%0d", i);
  end
endmodule
//> 5 8
//> 4 3
//> 2 0 9
//> 1 0 -1
