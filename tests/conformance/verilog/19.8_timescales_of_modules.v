// IEEE 1364-2005 clause 19.8: each delay in the unit of its module
`timescale 1ns/1ns
module slow;
  initial #2 $display("slow %0t", $time);
endmodule
`timescale 100ps/100ps
module t;
  slow u();
  initial #10 $display("fast %0t", $time);
endmodule
//> fast 10
//> slow 20
