// IEEE 1364-2005 clause 9.6: a loop whose condition is false or unknown is not entered
module t;
  integer i;
  initial begin
    i = 3;
    while (i > 0) begin
      $write("%0d ", i);
      i = i - 1;
    end
    while (1'bx) $display("never");
    $display("end");
  end
endmodule
//> 3 2 1 end
