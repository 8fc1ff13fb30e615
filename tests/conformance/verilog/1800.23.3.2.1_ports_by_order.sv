// IEEE 1800-2017 clause 23.3.2.1: and a wrong number of them
module pair(input logic a, b, output logic y);
  assign y = a & b;
endmodule
module t;
  logic a = 1, b = 1, y;
  pair p(a, b, y, a); //! too-many
endmodule
