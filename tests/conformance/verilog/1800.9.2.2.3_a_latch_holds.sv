// IEEE 1800-2017 clause 9.2.2.3: `always_latch` follows while it is open
module t;
  logic g = 0, r = 0; logic [3:0] d = 5, q;
  always_latch if (r) q <= 0; else if (g) q <= d;
  initial begin
    #1 $display("%b", q);
    g = 1; #1 $display("%0d", q); d = 6; #1 $display("%0d", q);
    g = 0; d = 7; #1 $display("%0d", q);
    r = 1; #1 $display("%0d", q);
  end
endmodule
//> xxxx
//> 5
//> 6
//> 6
//> 0
