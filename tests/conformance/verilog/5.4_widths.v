// IEEE 1364-2005 clause 5.4, 5.5: sizes and signs that the context gives
module t;
  reg [15:0] a, b, answer; reg [3:0] n; reg signed [3:0] sn; reg signed [7:0] sw; reg [7:0] u; reg c; reg [4:0] five;
  initial begin
    a = 16'hffff; b = 16'h0001;
    answer = (a + b) >> 1; $display("%h", answer);
    answer = (a + b + 0) >> 1; $display("%h", answer);
    n = 4'd12; five = n + n; $display("%0d", five);
    {c, n} = 4'd9 + 4'd9; $display("%b %b", c, n);
    sn = -3; sw = sn; u = sn; $display("%0d %0d", sw, u);
    u = {sn}; $display("%0d", u);
    sw = sn[3:0]; $display("%0d", sw);
    sw = $signed(4'b1101) + 4'sd0; $display("%0d", sw);
    sw = $signed(4'b1101) + 4'd0; $display("%0d", sw);
    sw = -8'sd100; $display("%0d %0d", sw / 8'sd7, sw / 8'd7);
    $display("%0d", sw >>> 2); $display("%0d", $unsigned(sw) >>> 2);
    u = 8'hff; $display("%0d", u + 1'b1); $display("%0d", (u + 1'b1) == 0);
    $display("%0d", ~4'd0); $display("%0d", ~0);
    $display("%b", 4'b1 << 5 >> 5);
    answer = 1'b1 ? sn : 16'd0; $display("%0d", answer);
    $display("%0d", (sn < 4'sd0) ? sn : 4'sd1);
    $display("%b", sn == -3); $display("%b", sn == 4'd13); $display("%b", {sn} == -3);
    answer = -1; $display("%h", answer); answer = 4'shf; $display("%h", answer);
    sw = 8'sd127; sw = sw + 1; $display("%0d", sw);
    sw = 4'sb1000 * 4'sb0010; $display("%0d", sw);
  end
endmodule
//> 0000
//> 8000
//> 24
//> 1 0010
//> -3 253
//> 13
//> 13
//> -3
//> 13
//> -14 22
//> -25
//> 39
//> 0
//> 0
//> 15
//> -1
//> 0000
//> 13
//> -3
//> 1
//> 1
//> 0
//> ffff
//> ffff
//> -128
//> -16
