// IEEE 1800-2017 clause 9.4.5: the value is taken at once, and written after the delay
module t;
  int a = 1, b;
  initial begin
    b = #5 a;
    $display("%0d at %0t", b, $time);
  end
  initial #2 a = 9;
endmodule
//> 1 at 5
