// IEEE 1364-2005 clause 12.3.6: a connection to nothing
module m(input a);
endmodule
module t;
  wire x;
  m u(.b(x)); //! no-port
endmodule
