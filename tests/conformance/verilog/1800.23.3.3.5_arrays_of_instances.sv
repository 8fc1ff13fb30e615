// IEEE 1800-2017 clause 23.3.3.5: an array of instances shares out its vectors, or repeats what is as wide as one
module inv (input logic a, en, output logic y);
  assign y = en ? ~a : a;
endmodule
module t;
  logic [3:0] a = 4'b1010, y;
  inv u[3:0] (.a, .en(1'b1), .y);
  initial #1 $display("%b", y);
endmodule
//> 0101
