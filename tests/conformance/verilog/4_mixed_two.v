// IEEE 1364-2005 clause 4, 7, 10, 12 and 17 together: declarations in every style
`timescale 1 ns / 1 ps
`define MSG(x) $display("msg %0d", x)
`define STR "a string"
module sub #(parameter signed [3:0] OFF = -2, parameter N = 2)
  (input signed [7:0] x, (* keep *) input clk, output reg signed [7:0] y, output wire [N-1:0] t);
  localparam signed [3:0] K = OFF;
  always @(posedge clk) y <= x + K; assign t = {N{y[0]}};
endmodule
module udpm(input a, b, output c); wire d; and (strong0, pull1) #(1:2:3) g1(d, a, b), (c, d, d); endmodule
module t; ;
  wire a, b = 1; tri1 [3:0] pu; reg signed [7:0] r1, r2; integer ia [0:3], j; time tt [0:1]; reg clk; wire signed [7:0] y; wire [1:0] tw; wire c;
  reg [7:0] mem [15:0]; wire [7:0] m3 = mem[3]; genvar gi; reg [1:0] sel; reg [3:0] out;
  sub #(.OFF(-3)) s(.x(r1), .clk(clk), .y(y), .t(tw)); udpm u(b, 1'b1, c);
  function [7:0] f(input [3:0] p, q, input signed [7:0] z); reg [7:0] tmp; begin : inside integer k; tmp = 0; for (k = 0; k < 4; k = k + 1) tmp = tmp + p[k]; f = tmp + q + z; end endfunction
  function integer clogb2; input [31:0] depth; begin for (clogb2 = 0; depth > 0; clogb2 = clogb2 + 1) depth = depth >> 1; end endfunction
  localparam AW = clogb2(15); reg [AW-1:0] addr;
  always @(sel) case (sel) 2'd0, 2'd1: begin out = 4'd1; end 2'd2: ; default out = 4'hf; endcase
  generate for (gi = 0; gi < 3; gi = gi + 1) begin : g reg [3:0] v; initial v = gi * 3; wire w = v[0]; end endgenerate
  initial begin ; clk = 0; r1 = -5; (* full_case *) if (clk) ; else r2 = r1 >>> 1; #10 clk = 1; #1 $display("%0d %0d %b %b", y, r2, tw, c);
    `MSG(5); $display(`STR); $display(); $write; ia[2] = -7; tt[1] = 5; $display("%0d %0d %0d", ia[2], tt[1], AW);
    mem[3] = 8'h3c; #0 $display("%h", m3); $display("%0d", f(4'b1011, 2, -8'sd1)); $display("%0d %0d %0d", g[0].v, g[1].v, g[2].v);
    sel = 0; #1 $write("%h ", out); sel = 2; #1 $write("%h ", out); sel = 3; #1 $display("%h", out);
    $display("%b", pu); $display("%0d", 1.5e-3 * 2000); j = 'b101; $display("%0d", j); $display("%0d %s", f(1, 1, 1), "x");
    begin : named reg [3:0] loc; loc = 4'd6; $display("%0d", named.loc); end
    for (j = 0; j < 2; j = j + 1) begin : lp integer z; z = j; end $display("%0d", lp.z);
    if (r1 < 0 && r2 < 0 || 0) $display("neg"); if (-8'sd1 > 8'd1) $display("unsigned compare");
    r1 = 8'sh80; r2 = -r1; $display("%0d %0d", r2, r1 / -1); r1 = 100; r2 = r1 * 2; $display("%0d", r2); $display("%0d", (r1 * 2) / 4);
    casez (8'b1010_1010) 8'b1???_???1: $display("a"); 8'b1?1?_????: $display("b"); endcase
    $display("%d|%d|%d", 1'b1, 3'd5, 10'd5); $display("%b|%o|%h|%d", 9'd5, 9'd5, 9'd5, 9'd5); $display("%0b|%0o|%0h|%0d", 9'd5, 9'd5, 9'd5, 9'd5);
    $display("%h %h", 5'b1xxxx, 7'bzzz_zzzz); $display("%t", 5); $display("%e|%f|%g", 1, 2, 3);
    $display("%c%c%c", 72, 105, 33); $display("%s", 24'h414243); $display("a\\b\"c%%"); $display("%0d", $time); #(3.7) $display("%0t %0g", $time, $realtime);
    disable t.named; $finish; $display("not here"); end
endmodule
//> -8 -3 00 1
//> msg 5
//> a string
//>
//> -7 5 4
//> 3c
//> 4
//> 0 3 6
//> 1 1 f
//> 1111
//> 3
//> 5
//> 3 x
//> 6
//> 1
//> neg
//> unsigned compare
//> -128 128
//> -56
//> 50
//> b
//> 1|5|   5
//> 000000101|005|005|  5
//> 101|5|5|5
//> 1x zz
//>                 5000
//> 1.000000e+00|2.000000|3
//> Hi!
//> ABC
//> a\b"c%
//> 14
//> 18000 17.7
