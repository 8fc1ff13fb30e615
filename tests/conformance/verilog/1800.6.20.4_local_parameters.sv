// IEEE 1800-2017 clause 6.20.4: a `localparam` of a header follows the parameters before it
module m #(parameter W = 4, localparam N = 1 << W) (output logic [W:0] y);
  assign y = N;
endmodule
module t;
  logic [3:0] y;
  m #(.W(3)) u (.y);
  initial #1 $display("%0d", y);
endmodule
//> 8
