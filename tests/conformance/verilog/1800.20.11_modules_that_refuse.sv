// IEEE 1800-2017 clause 20.11: a module may refuse its parameters
module m #(parameter W = 4) ();
  if (W < 2) $error("W is %0d, and at least 2 are needed", W); //! W is 1
  initial $display("W %0d", W);
endmodule
module t;
  m #(1) u ();
endmodule
