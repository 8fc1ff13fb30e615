// IEEE 1364-2005 clause 18.1: the tasks of a dump change nothing of the run
module m;
  reg a;
  initial begin
    $dumpfile("m.vcd"); $dumpvars(0, m); a = 0;
    #1 a = 1; $dumpoff; #1 a = 0; $dumpon; #1 $dumpall; $dumpflush;
    $display("%0d %b", $time, a);
  end
endmodule
//> 3 0
