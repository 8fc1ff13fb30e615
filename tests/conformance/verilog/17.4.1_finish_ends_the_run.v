// IEEE 1364-2005 clause 17.4.1: nothing after it happens
module t;
  initial begin
    $display("a");
    $finish;
    $display("b");
  end
  initial #1 $display("c");
endmodule
//> a
