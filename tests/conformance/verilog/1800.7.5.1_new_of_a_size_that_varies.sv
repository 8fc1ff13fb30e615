// IEEE 1800-2017 clause 7.5.1: the size of a dynamic array is known in the run
module t;
  int d[], total = 0;
  initial begin
    for (int n = 1; n < 4; n++) begin
      d = new[n * 2];
      foreach (d[i]) d[i] = i + n;
      total += d.sum();
    end
    $display("%0d %0d", d.size(), total);
  end
endmodule
//> 6 50
