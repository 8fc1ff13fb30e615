// IEEE 1800-2017 clause 12.7.1: visible in the loop alone
module t;
  initial begin
    for (int i = 0; i < 3; i++) $write("%0d ", i);
    $display("end");
  end
endmodule
//> 0 1 2 end
