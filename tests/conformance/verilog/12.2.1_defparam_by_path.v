// IEEE 1364-2005 clause 12.2.1: overrides from anywhere
module m;
  parameter n = 1;
  initial #1 $display("%0d", n);
endmodule
module t;
  m u();
  defparam u.n = 7;
endmodule
//> 7
