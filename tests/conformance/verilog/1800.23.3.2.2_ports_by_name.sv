// IEEE 1800-2017 clause 23.3.2.2: a port that is not there, with what was meant
module pair(input logic first, second, output logic y);
  assign y = first & second;
endmodule
module t;
  logic a = 1, b = 1, y;
  pair p(.first(a), .secnd(b), .y(y)); //! no-port
endmodule
