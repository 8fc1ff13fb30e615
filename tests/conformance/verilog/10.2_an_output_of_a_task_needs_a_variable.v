// IEEE 1364-2005 clause 10.2: an expression cannot take a value
module t;
  reg a;
  task put(output y);
    y = 1;
  endtask
  initial put(a & 1); //! bad-target
endmodule
