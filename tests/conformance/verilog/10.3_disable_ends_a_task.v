// IEEE 1364-2005 clause 10.3: from inside of it
module t;
  task show(input integer n);
    begin
      if (n < 0) disable show;
      $write("%0d ", n);
    end
  endtask
  initial begin
    show(1); show(-1); show(2);
    $display("end");
  end
endmodule
//> 1 2 end
