// IEEE 1364-2005 clause 9.7.1: each statement waits from where the one before ended
module t;
  initial begin
    #3 $write("%0t ", $time);
    #0 $write("%0t ", $time);
    #(2 + 2) $display("%0t", $time);
  end
endmodule
//> 3 3 7
