// IEEE 1800-2017 clause 9.6.1: goes on at once
module t;
  initial begin
    wait fork;
    disable fork;
    $display("%0t", $time);
  end
endmodule
//> 0
