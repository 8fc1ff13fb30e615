// IEEE 1800-2017 clause 23.3.2.3: `.name` makes no wire of its own
module n (input logic p, output logic y);
  assign y = p;
endmodule
module t;
  logic y;
  n u (.p, .y); //! undeclared
endmodule
