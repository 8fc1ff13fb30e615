// IEEE 1800-2017 clause 11.8.1: signs survive only where every operand has one
module t;
  logic signed [3:0] a = -3; logic [3:0] u = 2; logic signed [7:0] y;
  initial begin
    y = a + u; $display("%0d", y);
    y = a + $signed(u); $display("%0d", y);
    y = a >>> 1; $display("%0d", y);
    y = (a >>> 1) + u; $display("%0d", y);
    y = a * 2; $display("%0d", y);
    y = a[3:0]; $display("%0d", y);
    $display("%0d %0d", a < u, a < 2);
    $display("%0d", (a < 0) ? a : u);
  end
endmodule
//> 15
//> -1
//> -2
//> 8
//> -6
//> 13
//> 0 1
//> 13
