// IEEE 1364-2005 clause 3.4: tokens are as long as they can be
module t;
  reg [3:0] a, b;
  initial begin
    a = 4'd3; b = 4'd1;
    $display("%0d %0d %b", a<<b, a- -b, a&&b);
  end
endmodule
//> 6 4 1
