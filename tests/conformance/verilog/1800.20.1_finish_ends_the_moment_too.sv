// IEEE 1800-2017 clause 20.1: nothing after `$finish` is done
module t;
  initial begin
    $display("before");
    $finish;
    $display("after");
  end
  initial #1 $display("never");
endmodule
//> before
