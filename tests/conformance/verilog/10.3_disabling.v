// IEEE 1364-2005 clause 10.3: disabling from outside, from a child, and of what other children do
module t;
  integer n;
  initial begin : outer
    fork
      begin : a forever #3 n = n + 1; end
      begin : b #10 disable a; $display("a ended at %0t, n=%0d", $time, n); end
      begin : c begin : d #20 $display("never"); end $display("d left at %0t", $time); end
      begin #15 disable c.d; end
    join
    $display("joined at %0t", $time);
    fork
      begin #5 disable outer; $display("not reached"); end
      begin #50 $display("never"); end
    join
    $display("never");
  end
  initial begin n = 0; #25 $display("outer left"); run; $display("run ended at %0t", $time); end
  task run; begin : inside fork #4 disable run; #9 $display("never"); join end endtask
  initial begin : w #100 $display("never"); end
  initial #60 disable w;
endmodule
//> a ended at 10, n=3
//> d left at 15
//> joined at 15
//> outer left
//> run ended at 29
