// IEEE 1800-2017 clause 11.4.2: what writes to a variable stands in a process
module t (output logic [3:0] y);
  logic [3:0] n;
  assign y = n++; //! effect-outside
endmodule
