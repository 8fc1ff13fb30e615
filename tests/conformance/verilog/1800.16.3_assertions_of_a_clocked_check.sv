// IEEE 1800-2017 clause 16.3: in a process that waits for the clock
module t;
  logic clk = 0, req = 0, ack = 0;
  always #1 clk = ~clk;
  always @(posedge clk)
    if (req) assert (ack) $display("%0t held", $time); else $display("%0t missed", $time);
  initial begin
    #2 req = 1;
    #2 ack = 1;
    #2 $finish;
  end
endmodule
//> 3 missed
//> 5 held
