// IEEE 1364-2005 clause 17.10: plusargs that are not there
module m;
  integer n;
  initial begin
    n = 7;
    $display("%b %b %0d", $test$plusargs("X") != 0, $value$plusargs("N=%d", n) != 0, n);
  end
endmodule
//> 0 0 7
