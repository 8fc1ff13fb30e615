// IEEE 1364-2005 clause 5.4.1: operands are widened to each other, not to the target
module t;
  reg [7:0] y;
  initial begin
    y = 4'd15 + 4'd1 == 5'd16; $write("%0d ", y);
    y = 4'd15 + 4'd1 == 4'd0; $display("%0d", y);
  end
endmodule
//> 1 1
