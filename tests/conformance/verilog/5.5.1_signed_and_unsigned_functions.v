// IEEE 1364-2005 clause 5.5.1: $signed and $unsigned convert what they are given
module t;
  reg [3:0] u;
  reg signed [7:0] y;
  initial begin
    u = 4'b1000;
    y = $signed(u); $write("%0d ", y);
    y = $unsigned(4'sb1000); $display("%0d", y);
  end
endmodule
//> -8 8
