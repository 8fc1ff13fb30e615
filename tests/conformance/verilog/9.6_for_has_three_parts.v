// IEEE 1364-2005 clause 9.6: all three are needed
module t;
  integer i;
  initial
    for (i = 0; i < 3;) //! expected-target
      i = i + 1;
endmodule
