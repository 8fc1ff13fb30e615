// IEEE 1800-2017 clause 12.7.1: several variables and several steps
module t;
  initial begin
    for (int i = 0, j = 9; i < j; i += 2, j--) $display("%0d %0d", i, j);
  end
endmodule
//> 0 9
//> 2 8
//> 4 7
