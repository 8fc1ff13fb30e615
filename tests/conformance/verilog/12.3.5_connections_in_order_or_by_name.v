// IEEE 1364-2005 clause 12.3.5: not mixed
module m(input a, input b);
endmodule
module t;
  wire x;
  m u(x, .b(x)); //! mixed-connections
endmodule
