// IEEE 1364-2005 clause 19.8, 17.3: units and precisions of modules side by side
`timescale 1us / 1ns
module slow(output reg q); initial begin q = 0; #1.5 q = 1; $display("slow %0t %g", $time, $realtime); end endmodule
`timescale 1ns / 10ps
module t;
  wire q; slow u(q);
  initial begin
    #10.123 $display("%0t %g %0d", $realtime, $realtime, $time); #(1.006) $display("%g", $realtime);
    @(posedge q) $display("%g %0d", $realtime, $stime);
    $timeformat(-6, 3, " us", 12); $display("|%t|%0t|", $realtime, $time); $timeformat(-9, 0, "ns", 0); $display("%t", 20);
  end
endmodule
//> 1012 10.12 10
//> 11.13
//> slow 200000 1.5
//> 1500 1500
//> |    1.500 us|1.500 us|
//> 20ns
