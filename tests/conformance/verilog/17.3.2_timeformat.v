// IEEE 1364-2005 clause 17.3.2: unit, digits, suffix, width
`timescale 1ns/1ps
module t;
  initial begin
    $timeformat(-9, 2, " ns", 10);
    #1.5 $display("[%t]", $realtime);
  end
endmodule
//> [   1.50 ns]
