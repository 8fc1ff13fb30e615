// IEEE 1364-2005 clause 17.7.1: of the module that asks
`timescale 10ns/1ns
module t;
  initial begin
    #1.4 $write("%0d ", $time);
    #0.2 $display("%0d", $time);
  end
endmodule
//> 1 2
