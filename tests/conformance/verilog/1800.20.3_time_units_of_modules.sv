// IEEE 1800-2017 clause 20.3: `$time` counts in the units of the module that asks
module inner;
  timeunit 10ns;
  timeprecision 1ns;
  initial #2 $display("inner %0t %0d", $time, $time);
endmodule
module t;
  timeunit 1ns;
  timeprecision 1ns;
  inner i();
  initial #25 $display("outer %0d %g", $time, $realtime);
endmodule
//> inner 20 2
//> outer 25 25
