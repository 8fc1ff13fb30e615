// IEEE 1800-2017 clause 9.2.2.3: two latches, one after the other
module t;
  logic clk, d, m, q;
  always_latch if (!clk) m = d;
  always_latch if (clk) q = m;
  initial begin
    clk = 0; d = 1;
    #1 $display("%b %b", m, q);
    clk = 1;
    #1 $display("%b %b", m, q);
    d = 0;
    #1 $display("%b %b", m, q);
    clk = 0;
    #1 $display("%b %b", m, q);
  end
endmodule
//> 1 x
//> 1 1
//> 1 1
//> 0 1
