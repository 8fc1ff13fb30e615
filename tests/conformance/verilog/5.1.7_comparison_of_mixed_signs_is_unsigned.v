// IEEE 1364-2005 clause 5.1.7: one unsigned operand makes both unsigned
module t;
  reg signed [3:0] s;
  reg [3:0] u;
  initial begin
    s = -1; u = 1;
    $display("%b %b", s < u, s < 4'sd1);
  end
endmodule
//> 0 1
