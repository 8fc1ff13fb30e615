// IEEE 1800-2017 clause 9.3.3: what `begin` and `end` hold is done one after the other, without time
module t;
  int a = 1, b;
  initial begin
    b = a; a = 2; b = b + a;
    $display("%0d at %0t", b, $time);
  end
endmodule
//> 3 at 0
