// IEEE 1800-2017 clause 9.2.2.4: nonblocking assignments read before any of them writes
module t;
  logic clk = 0; logic [3:0] a = 1, b = 2, s [3];
  always_ff @(posedge clk) begin a <= b; b <= a; end
  always_ff @(posedge clk) begin s[0] <= a; for (int i = 1; i < 3; i++) s[i] <= s[i-1]; end
  initial begin
    repeat (3) begin #1 clk = 1; #1 clk = 0; end
    $display("%0d %0d %0d%0d%0d", a, b, s[0], s[1], s[2]);
  end
endmodule
//> 2 1 121
