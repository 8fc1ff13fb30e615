// IEEE 1364-2005 clause 9.6: changing the variable changes nothing
module t;
  integer n;
  initial begin
    n = 3;
    repeat (n) begin
      n = n + 1;
      $write("%0d ", n);
    end
    $display("end");
  end
endmodule
//> 4 5 6 end
