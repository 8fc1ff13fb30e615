// IEEE 1800-2017 clause 26.3: no package of that name
module t;
  import nowhere::*; //! no-package
endmodule
