// IEEE 1800-2017 clause 9.6.3: all that this process has forked, and what that has
module t;
  initial begin
    fork
      begin
        fork #4 $display("deep"); join_none
        #1;
      end
      #6 $display("never");
    join_any
    disable fork;
    $display("%0t", $time);
    fork #2 $display("later %0t", $time); join_none
    wait fork;
  end
  initial #8 $display("another process %0t", $time);
endmodule
//> 1
//> later 3
//> another process 8
