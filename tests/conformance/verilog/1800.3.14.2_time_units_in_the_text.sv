// IEEE 1800-2017 clause 3.14.2: timeunit, and numbers with a unit
module t;
  timeunit 10ns;
  timeprecision 1ns;
  initial begin
    #5ns $display("%0d", $realtime * 10);
    #20ns $display("%0d", $realtime * 10);
    #1.5 $display("%0d", $realtime * 10);
  end
endmodule
//> 5
//> 25
//> 40
