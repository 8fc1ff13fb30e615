// IEEE 1364-2005 clause 9.9.2: from the beginning as soon as it ends
module t;
  integer n;
  initial n = 0;
  always #2 n = n + 1;
  initial #7 begin
    $display("%0d", n);
    $finish;
  end
endmodule
//> 3
