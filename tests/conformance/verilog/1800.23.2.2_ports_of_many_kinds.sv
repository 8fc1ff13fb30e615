// IEEE 1800-2017 clause 23.2.2: var, two-state inputs, ports that go on as the one before
module m (input bit a, b, input var logic [1:0] c, output int y, z);
  assign y = a + b + c;
  always_comb z = -y;
endmodule
module t;
  int y, z;
  m u (.a(1'b1), .b(1'bx), .c(2'd3), .y, .z);
  initial #1 $display("%0d %0d", y, z);
endmodule
//> 4 -4
