// IEEE 1800-2017 clause 10.4.1: blocking assignments see what the ones before have written
module t;
  int a = 1, b = 2, c;
  initial begin
    c = a; a = b; b = c;
    $display("%0d %0d", a, b);
    a <= b; b <= a;
    $display("%0d %0d", a, b);
    #1 $display("%0d %0d", a, b);
  end
endmodule
//> 2 1
//> 2 1
//> 1 2
