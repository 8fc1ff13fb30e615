// IEEE 1800-2017 clause 13.5: not before the task ends
module t;
  int seen;
  task slowly(output int y);
    y = 5;
    #2;
    y = 6;
  endtask
  initial slowly(seen);
  initial begin
    #1 $display("%0d", seen);
    #2 $display("%0d", seen);
  end
endmodule
//> 0
//> 6
