// IEEE 1800-2017 clause 6.24.1: a cast to a sign keeps the digits
module t;
  logic [3:0] a = 4'b1100;
  logic signed [3:0] s = -4;
  initial begin
    $display("%0d %0d", signed'(a), unsigned'(s));
    $display("%b %b", signed'(a) >>> 1, unsigned'(s) >>> 1);
  end
endmodule
//> -4 12
//> 1110 0110
