// IEEE 1364-2005 clause 4.5: only connections and left sides of assign make wires
module t;
  initial $display("%b", nobody); //! undeclared
endmodule
