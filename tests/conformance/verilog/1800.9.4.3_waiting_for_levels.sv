// IEEE 1800-2017 clause 9.4.3: `wait` goes on at once where the condition is met already
module t;
  logic go = 1, stop = 0;
  initial begin
    wait (go) $display("%0t", $time);
    wait (stop) $display("%0t", $time);
  end
  initial #7 stop = 1;
endmodule
//> 0
//> 7
