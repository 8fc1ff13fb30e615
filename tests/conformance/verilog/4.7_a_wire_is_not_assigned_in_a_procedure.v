// IEEE 1364-2005 clause 4.7: procedural assignments write variables, not nets
module t;
  wire a;
  initial a = 1'b1; //! net-in-process
endmodule
