// IEEE 1364-2005 clause 8.1: a second output is none
primitive p(y, z, a);
  output y, z; //! udp-output
  input a;
  table
    ? 0 : 1;
  endtable
endprimitive
module t;
endmodule
