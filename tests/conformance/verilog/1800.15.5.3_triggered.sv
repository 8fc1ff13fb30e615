// IEEE 1800-2017 clause 15.5.3: an event has been triggered as long as its step of time lasts
module t;
  event e;
  initial begin
    #1 -> e;
    $display("%b", e.triggered);
    #1 $display("%b", e.triggered);
  end
  initial begin
    #1 #0;
    wait (e.triggered) $display("not missed at %0t", $time);
  end
endmodule
//> 1
//> not missed at 1
//> 0
