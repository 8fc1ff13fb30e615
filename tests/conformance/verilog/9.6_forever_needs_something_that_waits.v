// IEEE 1364-2005 clause 9.6: one that waits runs until the end
module t;
  reg clk;
  initial begin
    clk = 0;
    forever #5 clk = ~clk;
  end
  initial #22 begin
    $display("%b", clk);
    $finish;
  end
endmodule
//> 0
