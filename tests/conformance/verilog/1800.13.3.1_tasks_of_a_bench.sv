// IEEE 1800-2017 clause 13.3.1: a task drives, waits for the clock and compares
module t;
  logic clk = 0; always #5 clk = ~clk;
  logic [3:0] d = 0, q; logic en = 0; int fails = 0;
  always_ff @(posedge clk) if (en) q <= d;
  task automatic check(input logic [3:0] v, input logic e, input logic [3:0] wanted, string what);
    @(negedge clk); d = v; en = e;
    @(posedge clk); #1;
    if (q !== wanted) begin fails++; $display("%0t %s: %0d, not %0d", $time, what, q, wanted); end
  endtask
  initial begin
    check(3, 1, 3, "load"); check(9, 0, 3, "hold"); check(9, 1, 8, "wrong");
    $display("%0d", fails); $finish;
  end
endmodule
//> 36 wrong: 9, not 8
//> 1
