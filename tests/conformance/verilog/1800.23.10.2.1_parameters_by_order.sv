// IEEE 1800-2017 clause 23.10.2.1: the first value is that of the first parameter
module show #(parameter int A = 1, B = 2, parameter string S = "s") ();
  initial $display("%0d %0d %s", A, B, S);
endmodule
module t;
  show #(5) one();
  show #(6, 7) two();
  show #(.S("named"), .B(9)) three();
endmodule
//> 5 2 s
//> 6 7 s
//> 1 9 named
