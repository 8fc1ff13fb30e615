// IEEE 1364-2005 clause 12.1: nothing of that name is handed in
module t;
  wire x;
  nobody u(x); //! no-module
endmodule
