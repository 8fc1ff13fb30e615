// IEEE 1800-2017 clause 12.7.3: over every dimension that is named, from its left end to its right one
module t;
  int a [3:1][0:1];
  logic [2:0] v = 3'b110;
  initial begin
    foreach (a[i, j]) begin
      a[i][j] = 10 * i + j;
      $write(" %0d", a[i][j]);
    end
    $display("");
    foreach (a[, j]) $write(" %0d", j);
    $display("");
    foreach (v[k]) $write("%b", v[k]);
    $display("");
  end
endmodule
//>  30 31 20 21 10 11
//>  0 1
//> 110
