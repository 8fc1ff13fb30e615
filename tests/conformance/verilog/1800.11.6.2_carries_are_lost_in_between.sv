// IEEE 1800-2017 clause 11.6.2: an average needs a wider place for its sum
module t;
  logic [3:0] a = 15, b = 3, y; logic [4:0] w;
  initial begin
    y = (a + b) >> 1; $display("%0d", y);
    y = (a + b + 0) >> 1; $display("%0d", y);
    w = (a + b) >> 1; $display("%0d", w);
    y = {1'b0, a} + b >> 1; $display("%0d", y);
  end
endmodule
//> 1
//> 9
//> 9
//> 9
