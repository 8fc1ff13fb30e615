// IEEE 1800-2017 clause 25.5: its direction holds
interface bus;
  logic v;
  modport sink (input v);
endinterface
module m (bus.sink b);
  assign b.v = 1; //! modport-input
endmodule
module t;
  bus b ();
  m u (b);
endmodule
