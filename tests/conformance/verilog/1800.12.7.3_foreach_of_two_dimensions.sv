// IEEE 1800-2017 clause 12.7.3: the last name counts fastest, from left to right
module t;
  logic [3:0] m [1:0][0:2];
  initial begin
    foreach (m[i, j]) m[i][j] = 10 * i + j;
    foreach (m[i, j]) $write("%0d%0d=%0d ", i, j, m[i][j]);
    $display("|");
    foreach (m[, j]) $write("%0d ", j);
    $display("|");
  end
endmodule
//> 10=10 11=11 12=12 00=0 01=1 02=2 |
//> 0 1 2 |
