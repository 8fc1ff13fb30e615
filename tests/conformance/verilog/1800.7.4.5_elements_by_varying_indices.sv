// IEEE 1800-2017 clause 7.4.5: writing where an index says
module t;
  logic [3:0][3:0] a = 0;
  logic [3:0] m [0:3];
  int i;
  initial begin
    for (i = 0; i < 4; i++) begin
      a[i] = 4'(i * 3);
      m[3 - i] = a[i];
    end
    $display("%h %p", a, m);
  end
endmodule
//> 9630 '{9, 6, 3, 0}
