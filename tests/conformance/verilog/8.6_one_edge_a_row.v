// IEEE 1364-2005 clause 8.6: two edges in one row are refused
primitive p(q, a, b);
  output q;
  reg q;
  input a, b;
  table
    (01) (01) : ? : 1; //! bad-row
  endtable
endprimitive
module t;
endmodule
