// IEEE 1800-2017 clause 23.3.2.4: what is named is taken as named, the rest by its own name
module m (input logic a, b, output logic y);
  assign y = a & ~b;
endmodule
module t;
  logic a = 1, k = 0, y, b = 1;
  m u (.*, .b(k));
  initial #1 $display("%b", y);
endmodule
//> 1
