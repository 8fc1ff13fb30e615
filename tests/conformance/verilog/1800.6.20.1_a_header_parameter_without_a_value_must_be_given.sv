// IEEE 1800-2017 clause 6.20.1: a parameter without a default
module m #(parameter int N) (output logic [7:0] y); //! no-value
  assign y = N;
endmodule
module t;
  logic [7:0] y;
  m u (y);
endmodule
