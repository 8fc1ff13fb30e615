// IEEE 1800-2017 clause 9.3.2: goes on at once, what was forked begins when it waits
module t;
  initial begin
    fork
      $display("forked");
      #2 $display("later");
    join_none
    $display("first");
    #1 $display("second");
  end
endmodule
//> first
//> forked
//> second
//> later
