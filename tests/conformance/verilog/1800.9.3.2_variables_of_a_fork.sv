// IEEE 1800-2017 clause 9.3.2: each branch of a fork has the automatic variables of the fork as they were when it began
module t;
  initial begin
    for (int i = 0; i < 3; i++) fork
      automatic int k = i;
      #(3 - k) $display("%0d at %0t", k, $time);
    join_none
    wait fork;
    $display("all");
  end
endmodule
//> 2 at 1
//> 1 at 2
//> 0 at 3
//> all
