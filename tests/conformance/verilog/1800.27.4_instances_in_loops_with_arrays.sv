// IEEE 1800-2017 clause 27.4: each instance has its element of an array
module one #(int N = 0) (input logic [3:0] a, output logic [3:0] y); assign y = a + N; endmodule
module t;
  localparam int K [4] = '{3, 1, 4, 1};
  logic [3:0] a [4], y [4];
  for (genvar i = 0; i < 4; i++) begin : each
    one #(K[i]) u(.a(a[i]), .y(y[i]));
  end
  initial begin
    a = '{1, 2, 3, 4}; #1
    foreach (y[i]) $write("%0d ", y[i]);
    $display("%0d", each[2].u.y);
  end
endmodule
//> 4 3 7 5 7
