// IEEE 1800-2017 clause 12.8: `return` leaves a task from anywhere
module t;
  task show(int n);
    if (n < 0) return;
    for (int i = 0; i < 5; i++) begin
      if (i == n) return;
      $write("%0d", i);
    end
  endtask
  initial begin
    show(-1);
    show(2);
    $display;
  end
endmodule
//> 01
