// IEEE 1364-2005 clause 5.5.1: the sign of an expression depends on its operands, not on its target
module t;
  reg signed [7:0] y;
  reg signed [3:0] s;
  reg [3:0] u;
  initial begin
    s = -1; u = 0;
    y = s + u; $write("%0d ", y);
    y = s + 4'sd0; $display("%0d", y);
  end
endmodule
//> 15 -1
