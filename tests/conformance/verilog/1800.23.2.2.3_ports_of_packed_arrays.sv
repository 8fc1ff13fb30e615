// IEEE 1800-2017 clause 23.2.2.3: a port may be a packed array of many dimensions
module turn (input logic [1:0][1:0][3:0] a, output logic [1:0][1:0][3:0] y);
  always_comb foreach (a[i, j]) y[j][i] = a[i][j];
endmodule
module t;
  logic [1:0][1:0][3:0] a = 16'h1234, y;
  turn u (.a, .y);
  initial #1 $display("%h", y);
endmodule
//> 1324
