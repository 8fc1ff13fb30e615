// IEEE 1800-2017 clause 6.24.1: a cast to fewer digits keeps the right ones
module t;
  logic [7:0] a = 8'hA5;
  logic signed [7:0] s = -3;
  initial begin
    $display("%h %b", 4'(a), 1'(a));
    $display("%0d %0d", 4'(s), 16'(s));
    $display("%0d", 16'(a));
  end
endmodule
//> 5 1
//> -3 -3
//> 165
