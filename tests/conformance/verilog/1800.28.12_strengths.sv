// IEEE 1800-2017 clause 28.12: the stronger driver wins, equal ones give x
module t;
  logic a = 1, b = 0;
  wire y, z;
  assign (strong1, strong0) y = a;
  assign (pull1, pull0) y = b;
  assign (weak1, weak0) z = a;
  assign (weak1, weak0) z = b;
  initial #1 $display("%b %b", y, z);
endmodule
//> 1 x
