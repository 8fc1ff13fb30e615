// IEEE 1800-2017 clause 6.19.5: first, last, num and next in a loop
module t;
  typedef enum int {A = 3, B = 7, C = -1} e;
  e x;
  initial begin
    x = x.first;
    forever begin
      $write("%s=%0d ", x.name, x);
      if (x == x.last()) break;
      x = x.next();
    end
    $display("%0d", x.num());
    for (e k = k.first(), int n = 0; n < k.num(); k = k.next(), n++) $write("%s", k.name());
    $display;
  end
endmodule
//> A=3 B=7 C=-1 3
//> ABC
