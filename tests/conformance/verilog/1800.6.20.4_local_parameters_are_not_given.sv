// IEEE 1800-2017 clause 6.20.4: nobody gives a `localparam` its value
module m #(parameter W = 4, localparam N = 1 << W) (output logic [W:0] y);
  assign y = N;
endmodule
module t;
  logic [4:0] y;
  m #(.N(3)) u (.y); //! no-parameter
endmodule
