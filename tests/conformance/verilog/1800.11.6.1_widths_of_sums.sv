// IEEE 1800-2017 clause 11.6.1: a sum is as wide as what takes it
module t;
  logic [3:0] a = 12, b = 7;
  logic [4:0] wide;
  initial begin
    wide = a + b;
    $display("%0d %0d %0d", wide, (a + b) >> 1, {a + b});
    wide = (a + b) >> 1;
    $display("%0d", wide);
  end
endmodule
//> 19 1 3
//> 9
