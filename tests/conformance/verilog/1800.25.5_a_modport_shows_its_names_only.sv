// IEEE 1800-2017 clause 25.5: what is not listed is not accessible
interface bus;
  logic v, w;
  modport sink (input v);
endinterface
module m (bus.sink b, output logic y);
  assign y = b.w; //! no-path
endmodule
module t;
  bus b ();
  logic y;
  m u (b, y);
endmodule
