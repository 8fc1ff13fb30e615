// IEEE 1800-2017 clause 9.3.2: join waits for all, join_any for one, join_none for none
module t;
  initial begin
    fork #3; #5; join
    $display("%0t", $time);
    fork #3; #5; join_any
    $display("%0t", $time);
    fork #3 $display("late %0t", $time); join_none
    $display("%0t", $time);
    wait fork;
    $display("%0t", $time);
  end
endmodule
//> 5
//> 8
//> 8
//> late 11
//> 11
