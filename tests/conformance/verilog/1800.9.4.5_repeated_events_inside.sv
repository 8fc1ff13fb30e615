// IEEE 1800-2017 clause 9.4.5: `= repeat (2) @(posedge clk)` keeps the value of before
module t;
  logic clk = 0;
  int a = 1, y = 0;
  always #1 clk = ~clk;
  initial begin
    y = repeat (2) @(posedge clk) a;
    $display("%0t %0d", $time, y);
    $finish;
  end
  initial #2 a = 9;
endmodule
//> 3 1
