// IEEE 1364-2005 clause 4.7: assign drives nets, not variables
module t;
  reg a;
  assign a = 1'b1; //! reg-driven
endmodule
