// IEEE 1364-2005 clause 9.7.7: the right side is taken before the wait
module t;
  reg a, y;
  initial begin
    a = 1;
    y = #5 a;
    $display("%0t %b", $time, y);
  end
  initial #2 a = 0;
endmodule
//> 5 1
