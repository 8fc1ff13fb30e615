// IEEE 1800-2017 clause 35.3: a function of another language is not read, and named
module t;
  import "DPI-C" function int f(int a); //! not-yet
endmodule
