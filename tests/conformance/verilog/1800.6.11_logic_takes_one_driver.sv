// IEEE 1800-2017 clause 6.11: a variable that a continuous assignment drives
module t;
  logic a;
  assign a = 1'b1;
  initial #1 $display("%b", a);
endmodule
//> 1
