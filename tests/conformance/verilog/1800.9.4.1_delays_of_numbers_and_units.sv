// IEEE 1800-2017 clause 9.4.1: a delay may be a number, a parameter, an expression or a time
module t;
  timeunit 1ns / 100ps;
  parameter D = 3;
  int n = 2;
  initial begin
    #1 $write("%0t ", $realtime);
    #D $write("%0t ", $realtime);
    #(n * 2) $write("%0t ", $realtime);
    #1.5ns $display("%0t", $realtime);
  end
endmodule
//> 10 40 80 95
