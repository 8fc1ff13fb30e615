// IEEE 1364-2005 clause 17: system tasks are statements
module m;
  integer n;
  initial n = $display("a");  //! task-in-expression
endmodule
