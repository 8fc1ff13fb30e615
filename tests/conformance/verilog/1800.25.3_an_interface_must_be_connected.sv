// IEEE 1800-2017 clause 25.3.3: an interface port is never left open
interface bus;
  logic v;
endinterface
module m (bus b);
endmodule
module t;
  m u (); //! open-interface
endmodule
