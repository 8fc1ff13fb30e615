// IEEE 1800-2017 clause 20.6.1: `$typename` is not read, and named
module t;
  int a;
  initial $display("%s", $typename(a)); //! no-system-function
endmodule
