// IEEE 1800-2017 clause 10.4.2: what stands right is taken before anything is written
module t;
  int a = 1, b = 2, c = 3;
  initial begin
    a <= b;
    b <= c;
    c <= a;
    $display("%0d %0d %0d", a, b, c);
    #1 $display("%0d %0d %0d", a, b, c);
  end
endmodule
//> 1 2 3
//> 2 3 1
