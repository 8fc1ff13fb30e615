// IEEE 1800-2017 clause 6.24.1: the operand of a cast is sized by itself
module t;
  logic [3:0] a = 15, b = 1;
  logic [7:0] y;
  initial begin
    y = 8'(a + b);
    $display("%0d", y);
    y = 8'(a) + b;
    $display("%0d", y);
    y = (a + b) >> 1;
    $display("%0d", y);
  end
endmodule
//> 0
//> 16
//> 8
