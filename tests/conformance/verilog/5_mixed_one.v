// IEEE 1364-2005 clause 5, 9 and 10 together: what one construct does beside another
`timescale 1ns/1ns
module t;
  reg clk = 0, d; reg q, q2; wire \a+b ; reg \bus[3] = 1; assign \a+b = \bus[3] ; integer i, n; reg [-1:-4] neg; reg [3:0] a, b; parameter [7:0] P = 8'hA5; event e1, e2;
  reg [7:0] mem [0:3]; reg [2:0] cnt; time tt; real x; reg signed [3:0] s4; reg [15:0] w16; reg [31:0] idx;
  always #5 clk = ~clk;
  task outer(input integer k); begin inner(k + 1); inner(k * 2); end endtask
  task inner(input integer k); $display("inner %0d", k); endtask
  always @(e1, e2) $display("event at %0t", $time);
  always @* n = mem[idx] + cnt;
  initial begin
    d = 1; q <= @(posedge clk) d; d = 0; #6 $display("q=%b", q);
    d = 1; q2 = repeat (2) @(posedge clk) d; $display("q2=%b at %0t", q2, $time);
    $display("%b %b", \a+b , \bus[3] );
    neg = 4'b1010; $display("%b %b %b", neg[-1], neg[-4], neg[-2:-3]);
    $display("%b %b", P[7:4], P[0]);
    -> e1; #1 -> e2; #1 outer(5);
    {a, b} = 8'h5c; {a[0], {b[3:2], a[3]}} = 4'b1011; $display("%b %b", a, b);
    for (i = 3; i >= 0; i = i - 1) mem[i] = i * 10; idx = 2; cnt = 3; #1 $display("n=%0d", n); mem[2] = 99; #1 $display("n=%0d", n); idx = 1; #1 $display("n=%0d", n);
    tt = $time; $display("%d|%0d", tt, tt); $display("%d", $time);
    x = 1e10; $display("%g %0.1f %e", x, x, x); x = 0.1 + 0.2; $display("%g %0.17g", x, x);
    s4 = 4'b1000; $display("%0d %0d %0d", s4, -s4, s4 >>> 1); w16 = s4; $display("%h", w16); w16 = {4{s4}}; $display("%h", w16);
    $display("%0d", $signed({1'b1, 3'b010})); $display("%b", 4'b1010 === 4'b1010 & 4'b1);
    a = 4'b1x0z; if (a) $display("true"); else $display("false"); a = 4'b0x0z; if (a) $display("true"); else $display("false");
    $display("%b", a ? 4'b0011 : 4'b0101); $display("%b %b", a == 4'b1x0z, a != 4'b1111);
    i = 0; while (i < 3) begin : body i = i + 1; if (i == 2) disable body; $write("%0d ", i); end $display("");
    #(i * 2 + 1) $display("%0t", $time);
    $display("%s|%s", "abc" , {"x", "y"}); $display("%0d", "a" + 1); $display("%b", {2{2'b01}} == 4'b0101);
    a = 4'd15; a = a + 1; $display("%0d", a); b = 4'd0; b = b - 1; $display("%0d", b); $display("%0d", 4'd15 + 4'd1); $display("%0d", {4'd15 + 4'd1});
    $display("%h", 64'hffff_ffff_ffff_ffff * 2); $display("%0d", 10 % 3 * 2); $display("%b", !(4'b0) + 1'b1);
    $display("%0d %0d", -1 >> 28, -1 >>> 28); $display("%0d", 32'hffffffff == -1); $display("%b", ^4'b1x01);
    $finish;
  end
endmodule
//> q=1
//> q2=1 at 25
//> 1 1
//> 1 0 01
//> 1010 1
//> event at 25
//> event at 26
//> inner 6
//> inner 10
//> 1101 0100
//> n=23
//> n=102
//> n=13
//>                   30|30
//>                   30
//> 1e+10 10000000000.0 1.000000e+10
//> 0.3 0.30000000000000004
//> -8 -8 -4
//> fff8
//> 8888
//> -6
//> 0001
//> true
//> false
//> 0xx1
//> 0 1
//> 1 3 
//> 37
//> abc|xy
//> 98
//> 1
//> 0
//> 15
//> 0
//> 0
//> fffffffffffffffe
//> 2
//> 0
//> 15 -1
//> 1
//> x
