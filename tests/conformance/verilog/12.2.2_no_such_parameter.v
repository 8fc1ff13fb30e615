// IEEE 1364-2005 clause 12.2.2: a name that the module does not have
module m #(parameter a = 1) ();
endmodule
module t;
  m #(.c(5)) u(); //! no-parameter
endmodule
