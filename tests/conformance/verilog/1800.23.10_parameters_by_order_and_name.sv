// IEEE 1800-2017 clause 23.10: parameters are given by order or by name
module m #(parameter A = 1, B = 2, parameter logic [3:0] C = 4'hc) ();
  initial $display("%0d %0d %h", A, B, C);
endmodule
module t;
  m u1 ();
  m #(5) u2 ();
  m #(.C(20), .A(8)) u3 ();
endmodule
//> 1 2 c
//> 5 2 c
//> 8 2 4
