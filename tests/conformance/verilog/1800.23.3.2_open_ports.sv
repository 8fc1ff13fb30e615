// IEEE 1800-2017 clause 23.3.2: a port may be left open
module m (input logic a, b = 1, output logic y, z);
  assign y = a & b, z = a;
endmodule
module t;
  logic y;
  m u (.a(1'b1), .y(y), .z());
  initial #1 $display("%b", y);
endmodule
//> 1
