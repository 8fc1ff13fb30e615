// IEEE 1800-2017 clause 10.7: a value is widened by its own sign, whatever takes it
module t;
  logic signed [3:0] s = -3;
  logic [3:0] u = 4'b1101;
  logic [7:0] a, b;
  logic signed [7:0] c;
  initial begin
    a = s; b = u; c = u;
    $display("%b %b %0d", a, b, c);
  end
endmodule
//> 11111101 00001101 13
