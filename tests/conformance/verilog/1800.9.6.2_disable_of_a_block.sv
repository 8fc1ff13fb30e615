// IEEE 1800-2017 clause 9.6.2: `disable` ends a block with a name from outside of it
module t;
  initial begin : work
    forever #2 $write("w");
  end
  initial #7 begin
    disable work;
    $display(" stopped at %0t", $time);
  end
endmodule
//> www stopped at 7
