// IEEE 1800-2017 clause 27.5: one of several is placed, by a parameter
module unit #(parameter KIND = 0) (input logic a, b, output logic y);
  case (KIND)
    0: assign y = a & b;
    1: assign y = a | b;
    default: assign y = a ^ b;
  endcase
endmodule
module t;
  logic [2:0] y;
  unit u0 (1, 1, y[0]);
  unit #(1) u1 (1, 0, y[1]);
  unit #(7) u2 (1, 1, y[2]);
  initial #1 $display("%b", y);
endmodule
//> 011
