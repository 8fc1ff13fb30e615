// IEEE 1800-2017 clause 7.4.2: an array of arrays, the first index first
module t;
  logic [7:0] m[2][3];
  initial begin
    for (int i = 0; i < 2; i++) for (int j = 0; j < 3; j++) m[i][j] = i * 16 + j;
    $display("%h %h", m[1][2], m[0][1]);
    m[0] = m[1];
    $display("%h", m[0][0]);
  end
endmodule
//> 12 01
//> 10
