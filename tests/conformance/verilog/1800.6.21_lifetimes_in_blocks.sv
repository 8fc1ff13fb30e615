// IEEE 1800-2017 clause 6.21: an automatic variable of a block begins anew each time, a static one goes on
module t;
  initial begin
    for (int i = 0; i < 3; i++) begin
      automatic int a = 0;
      static int s = 0;
      a++;
      s++;
      $display("%0d %0d", a, s);
    end
  end
endmodule
//> 1 1
//> 1 2
//> 1 3
