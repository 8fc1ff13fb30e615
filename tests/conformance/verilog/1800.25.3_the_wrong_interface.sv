// IEEE 1800-2017 clause 25.3.2: of another name
interface one;
  logic v;
endinterface
interface two;
  logic v;
endinterface
module m (one b);
endmodule
module t;
  two b ();
  m u (b); //! interface-differs
endmodule
