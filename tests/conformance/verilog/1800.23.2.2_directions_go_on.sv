// IEEE 1800-2017 clause 23.2.2: a port without a direction is as the one before it
module m (input logic [3:0] a, b, output logic y, z);
  assign y = a > b, z = a < b;
endmodule
module t;
  logic y, z;
  m u (4'd3, 4'd5, y, z);
  initial #1 $display("%b%b", y, z);
endmodule
//> 01
