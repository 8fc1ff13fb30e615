// IEEE 1800-2017 clause 6.10: a name in a process must be declared
module t;
  initial k = 1; //! undeclared
endmodule
