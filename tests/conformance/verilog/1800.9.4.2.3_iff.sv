// IEEE 1800-2017 clause 9.4.2.3: an event that counts only while something holds
module t;
  logic clk = 0, en = 0;
  int n = 0;
  always_ff @(posedge clk iff en) n <= n + 1;
  initial begin
    repeat (4) #1 clk = ~clk;
    en = 1;
    repeat (4) #1 clk = ~clk;
    #1 $display("%0d", n);
  end
endmodule
//> 2
