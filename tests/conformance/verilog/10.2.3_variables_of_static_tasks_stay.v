// IEEE 1364-2005 clause 10.2.3: from call to call
module t;
  task count;
    integer n;
    begin
      if (n === 'bx) n = 0;
      n = n + 1;
      $write("%0d ", n);
    end
  endtask
  initial begin
    count; count; count;
    $display("end");
  end
endmodule
//> 1 2 3 end
