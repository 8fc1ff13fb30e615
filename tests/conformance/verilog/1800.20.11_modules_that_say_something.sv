// IEEE 1800-2017 clause 20.11: what a module says of its parameters is a warning or a note
module m #(parameter W = 4) ();
  if (W > 3) $warning("%0d is much", W); //? 4 is much
  initial $display("W %0d", W);
endmodule
module t;
  m u ();
  m #(2) v ();
endmodule
//> W 4
//> W 2
