// IEEE 1800-2017 clause 11.5.2: a digit of an element, with both indices varying
module t;
  logic [7:0] m [0:3];
  int i, j;
  initial begin
    foreach (m[k]) m[k] = 8'h11 << k;
    i = 2; j = 6;
    $display("%b %b", m[i][j], m[i][j-1]);
    $display("%h", m[3][7:4]);
    $display("%h", m[i][j-:4]);
    m[i][j] = 0;
    $display("%h", m[2]);
  end
endmodule
//> 1 0
//> 8
//> 8
//> 04
