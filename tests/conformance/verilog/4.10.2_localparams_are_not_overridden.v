// IEEE 1364-2005 clause 4.10.2: by name from outside
module m;
  localparam n = 3;
endmodule
module t;
  m #(.n(4)) u(); //! no-parameter
endmodule
