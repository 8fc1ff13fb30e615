// IEEE 1364-2005 clause 10.2.2: the caller waits with them
module t;
  task pause(input integer n);
    #n;
  endtask
  initial begin
    pause(4);
    $display("%0t", $time);
  end
endmodule
//> 4
