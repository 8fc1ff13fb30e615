// IEEE 1364-2005 clause 12.2.2: those that are left out keep their defaults
module m #(parameter a = 1, b = a + 1) ();
  initial #1 $display("%0d %0d", a, b);
endmodule
module t;
  m #(.a(5)) u();
endmodule
//> 5 6
