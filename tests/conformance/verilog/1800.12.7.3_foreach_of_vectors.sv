// IEEE 1800-2017 clause 12.7.3: packed dimensions are walked too
module t;
  logic [1:0][3:0] a = 8'hA5;
  initial begin
    foreach (a[i]) $write("%h ", a[i]);
    foreach (a[i, j]) $write("%b", a[i][j]);
    $display("");
  end
endmodule
//> a 5 10100101
