// IEEE 1800-2017 clause 9.2.2.2: even when nothing changes
module t;
  logic y;
  always_comb y = 1'b1;
  initial #1 $display("%b", y);
endmodule
//> 1
