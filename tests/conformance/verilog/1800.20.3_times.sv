// IEEE 1800-2017 clause 20.3: `$time` is rounded to the unit, `$realtime` is not
`timescale 1ns/100ps
module t;
  initial begin
    #2.4 $display("%0d %0.1f", $time, $realtime);
    #0.2 $display("%0d %0.1f", $time, $realtime);
    $display("%0d", $stime);
  end
endmodule
//> 2 2.4
//> 3 2.6
//> 3
