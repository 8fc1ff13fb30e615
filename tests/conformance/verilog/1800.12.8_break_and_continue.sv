// IEEE 1800-2017 clause 12.8: leave the loop, or the round
module t;
  initial begin
    for (int i = 0; i < 9; i++) begin
      if (i == 1) continue;
      if (i == 3) break;
      $write("%0d ", i);
    end
    $display("end");
  end
endmodule
//> 0 2 end
