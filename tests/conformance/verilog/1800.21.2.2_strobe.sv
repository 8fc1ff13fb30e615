// IEEE 1800-2017 clause 21.2.2: `$strobe` shows what holds when the moment is over
module t;
  int a = 1;
  initial begin
    $strobe("s %0d", a);
    $display("d %0d", a);
    a = 2; a <= 3;
    $display("e %0d", a);
  end
endmodule
//> d 1
//> e 2
//> s 3
