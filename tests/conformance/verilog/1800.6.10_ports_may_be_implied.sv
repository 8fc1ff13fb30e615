// IEEE 1800-2017 clause 6.10: a name at a port that nobody declared is a wire of one digit
module inner (input logic a, output logic y);
  assign y = ~a;
endmodule
module t;
  logic a = 0;
  inner u (.a(a), .y(w));
  initial #1 $display("%b", w);
endmodule
//> 1
