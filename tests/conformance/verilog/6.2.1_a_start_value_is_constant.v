// IEEE 1364-2005 clause 6.2.1: another variable is not
module t;
  reg a;
  reg b = a; //! start-value
endmodule
