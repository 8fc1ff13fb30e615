// IEEE 1364-2005 clause 9.7.3: -> wakes whoever waits now, and nobody later
module t;
  event e;
  initial begin
    #1 -> e;
    #2 -> e;
  end
  initial #2 @(e) $display("woken at %0t", $time);
endmodule
//> woken at 3
