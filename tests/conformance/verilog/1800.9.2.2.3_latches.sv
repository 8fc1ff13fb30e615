// IEEE 1800-2017 clause 9.2.2.3: `always_latch` keeps what it is not told to change
module t;
  logic g = 1, d = 1, q;
  always_latch if (g) q = d;
  initial begin
    #1 $write("%b", q);
    g = 0; d = 0;
    #1 $write("%b", q);
    g = 1;
    #1 $display("%b", q);
  end
endmodule
//> 110
