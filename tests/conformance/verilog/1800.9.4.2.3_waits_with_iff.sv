// IEEE 1800-2017 clause 9.4.2.3: an event control inside of a process goes on waiting where its condition is false
module t;
  logic clk = 0, ready = 0;
  initial repeat (8) #1 clk = ~clk;
  initial #4 ready = 1;
  initial begin
    @(posedge clk iff ready) $display("%0t", $time);
    @(negedge clk iff !ready);
    $display("never");
  end
endmodule
//> 5
