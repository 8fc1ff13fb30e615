// IEEE 1800-2017 clause 6.20.2: an instance gives a whole array
module m #(parameter int W [2] = '{1, 2}) (output logic [7:0] y);
  assign y = W[0] * 10 + W[1];
endmodule
module t;
  logic [7:0] p, q;
  localparam int K [2] = '{3, 4};
  m u (p);
  m #(.W(K)) v (q);
  initial #1 $display("%0d %0d", p, q);
endmodule
//> 12 34
