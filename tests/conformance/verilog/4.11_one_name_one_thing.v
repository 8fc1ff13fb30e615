// IEEE 1364-2005 clause 4.11: a net and a variable cannot share a name
module t;
  wire a;
  reg a; //! duplicate
endmodule
