// IEEE 1364-2005 clause 5.1: operators with known and unknown operands
module t;
  reg [3:0] a, b; reg [7:0] w; reg signed [7:0] s;
  initial begin
    a = 4'b1010; b = 4'b01xz;
    $display("%b %b %b %b", a & b, a | b, a ^ b, ~b);
    $display("%b %b %b %b %b %b", &a, |a, ^a, ~&b, ~|b, ~^b);
    $display("%b %b %b", a == b, a === 4'b1010, 4'b01xz === b);
    $display("%b %b", 4'b1x00 == 4'b0x00, 4'b1x00 != 4'b0x00);
    $display("%b %b", a + b, a < b);
    $display("%b %b %b", !a, !b, !4'b00x0);
    $display("%b %b", 1'b1 || 1'bx, 1'b0 && 1'bx);
    $display("%b %b", 1'bx ? 4'b1010 : 4'b1001, 1'bz ? a : a);
    w = 8'b1001_0001; s = 8'sb1001_0001;
    $display("%b %b %b %b", w >> 2, w >>> 2, s >>> 2, s <<< 1);
    $display("%b", w << 1'bx);
    $display("%0d %0d %0d %0d", -7 / 2, -7 % 2, 7 % -2, 7 / 2);
    $display("%b %b", 8'd5 / 8'd0, 8'd5 % 8'd0);
    $display("%0d %0d %0d", 2 ** 10, (-2) ** 3, 2 ** -1);
    $display("%0d", 3 ** 0);
    $display("%b", {a, 2'b01, {2{1'b1}}});
    $display("%b", {3{2'b01}});
    $display("%0d", 5 > 3 > 1);
    $display("%b", -4'd1 > 0);
    $display("%b %b", s < 0, w < 0);
    $display("%0d", 1 + 2 * 3 - 4 / 2 ** 2);
    $display("%b", 4'b1100 ~^ 4'b1010);
  end
endmodule
//> 00x0 111x 11xx 10xx
//> 0 1 0 1 0 x
//> 0 1 1
//> 0 1
//> xxxx x
//> 0 0 x
//> 1 0
//> 10xx 1010
//> 00100100 00100100 11100100 00100010
//> xxxxxxxx
//> -3 -1 1 3
//> xxxxxxxx xxxxxxxx
//> 1024 -8 0
//> 1
//> 10100111
//> 010101
//> 0
//> 1
//> 1 0
//> 6
//> 1001
