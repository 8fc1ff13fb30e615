// IEEE 1800-2017 clause 12.8: break and continue in a foreach
module t;
  int a [6] = '{1, 2, 3, 4, 5, 6}, sum = 0;
  initial begin
    foreach (a[i]) begin
      if (a[i] == 2) continue;
      if (a[i] == 5) break;
      sum += a[i];
    end
    $display("%0d", sum);
  end
endmodule
//> 8
