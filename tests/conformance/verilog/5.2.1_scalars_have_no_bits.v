// IEEE 1364-2005 clause 5.2.1: a select of a one-bit variable
module t;
  reg a, b;
  initial b = a[0]; //? select-of-bit
endmodule
