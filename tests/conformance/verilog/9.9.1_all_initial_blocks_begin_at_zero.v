// IEEE 1364-2005 clause 9.9.1: in the order in which they stand here
module t;
  initial $write("a");
  initial $write("b");
  initial #1 $display("c");
endmodule
//> abc
