// IEEE 1364-2005 clause 3.7.2: a word of the language cannot be declared
module t;
  reg input; //! reserved-word
endmodule
