// IEEE 1800-2017 clause 15.5.1: an event for which nobody waits is gone
module t;
  event e;
  initial begin
    -> e;
    fork
      begin @(e) $display("never"); end
      begin #1 $display("not yet"); end
    join_any
    disable fork;
    fork
      begin @(e) $display("now"); end
      begin #1 -> e; end
    join
  end
endmodule
//> not yet
//> now
