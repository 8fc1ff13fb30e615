// IEEE 1800-2017 clause 26.4: an import before the ports is seen by them
package p;
  typedef logic [2:0] op_t;
  localparam op_t ADD = 3'd5;
endpackage
module m import p::*; (input op_t op, output logic y);
  assign y = op == ADD;
endmodule
module t;
  logic y;
  m u (.op(p::ADD), .y);
  initial #1 $display("%b", y);
endmodule
//> 1
