// IEEE 1364-2005 clause 5.4.1: (a + b) >> 1 is as wide as its operands and the target
module t;
  reg [3:0] a, b, y;
  initial begin
    a = 15; b = 1;
    y = (a + b) >> 1; $write("%0d ", y);
    y = (a + b + 0) >> 1; $display("%0d", y);
  end
endmodule
//> 0 8
