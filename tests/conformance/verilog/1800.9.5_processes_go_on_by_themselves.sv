// IEEE 1800-2017 clause 9.5: what was forked goes on when its parent has ended
module t;
  initial begin
    fork
      #5 $display("still there at %0t", $time);
    join_none
    $display("parent ends at %0t", $time);
  end
endmodule
//> parent ends at 0
//> still there at 5
