// IEEE 1364-2005 clause 12.3.9: not a variable
module m(output y);
  assign y = 1'b1;
endmodule
module t;
  reg r;
  m u(r); //! reg-driven
endmodule
