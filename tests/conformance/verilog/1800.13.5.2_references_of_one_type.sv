// IEEE 1800-2017 clause 13.5.2: a variable by reference is of the argument's own type
module t;
  byte b;
  task automatic one(ref int n);
    n = 1;
  endtask
  initial one(b); //! reference-type
endmodule
