// IEEE 1800-2017 clause 9.6.2: a task that is disabled from outside gives nothing back
module t;
  int y = 1;
  task slowly(output int r);
    r = 7;
    #10;
    r = 8;
  endtask
  initial begin
    slowly(y);
    $display("%0t", $time);
  end
  initial begin
    #3 disable slowly;
    #1 $display("%0t", $time);
  end
endmodule
//> 3
//> 4
