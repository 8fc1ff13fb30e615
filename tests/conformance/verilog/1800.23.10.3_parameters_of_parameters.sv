// IEEE 1800-2017 clause 23.10.3: a value that follows from another parameter
module show #(parameter int W = 4, parameter int D = 2 * W, localparam int N = W + D) ();
  initial $display("%0d %0d %0d", W, D, N);
endmodule
module t;
  show one();
  show #(.W(3)) two();
  show #(.W(3), .D(1)) three();
endmodule
//> 4 8 12
//> 3 6 9
//> 3 1 4
