// IEEE 1364-2005 clause 10.3: as break and continue do elsewhere
module t;
  integer i;
  initial begin : all
    for (i = 0; i < 10; i = i + 1) begin : one
      if (i == 2) disable one;
      if (i == 4) disable all;
      $write("%0d ", i);
    end
  end
  initial #1 $display("end");
endmodule
//> 0 1 3 end
