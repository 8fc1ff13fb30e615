// IEEE 1800-2017 clause 9.2.3: `final` runs when everything is over
module t;
  int n = 0;
  initial begin
    repeat (3) #5 n++;
    $finish;
  end
  final $display("%0d at %0t", n, $time);
endmodule
//> 3 at 15
