// IEEE 1800-2017 clause 9.2.2.1: a clock of two halves
module t;
  logic clk = 0;
  int edges = 0;
  always #5 clk = ~clk;
  always @(posedge clk) edges++;
  initial begin
    #42 $display("%0d %b", edges, clk);
    $finish;
  end
endmodule
//> 4 0
