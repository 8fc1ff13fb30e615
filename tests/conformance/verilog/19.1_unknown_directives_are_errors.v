// IEEE 1364-2005 clause 19.1: a name after the accent grave that nobody defined
module t;
  initial $display(`nobody); //! no-macro
endmodule
