// IEEE 1364-2005 clause 12.1.2: of modules
module m(input a);
endmodule
module t;
  wire x;
  m (x); //! instance-name
endmodule
