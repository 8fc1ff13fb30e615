// IEEE 1364-2005 clause 12.3.10: are cut or filled like an assignment
module m(input [3:0] a, output [3:0] y);
  assign y = a;
endmodule
module t;
  wire [3:0] y;
  m u(2'b11, y); //? port-width
  initial #1 $display("%b", y);
endmodule
//> 0011
