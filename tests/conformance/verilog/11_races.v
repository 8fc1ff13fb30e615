// IEEE 1364-2005 clause 11: what the standard does settle about order
module t;
  reg clk = 0, d = 0, q1, q2; reg [3:0] n = 0; wire a, b; reg s = 0; assign a = s, b = ~a;
  always @(posedge clk) q1 <= d; always @(posedge clk) q2 <= q1;
  always @(posedge clk) begin n = n + 1; n <= n + 1; end
  always @(b) $display("b=%b at %0t", b, $time);
  initial begin
    d = 1; #1 clk = 1; #1 $display("%b %b %0d", q1, q2, n); clk = 0; d = 0; #1 clk = 1; #1 $display("%b %b %0d", q1, q2, n);
    s = 1; #0 $display("a=%b b=%b", a, b);
    begin d = 1; d <= 0; #0 $display("%b", d); end #1 $display("%b", d);
  end
endmodule
//> b=1 at 0
//> 1 x 2
//> 0 1 4
//> b=0 at 4
//> a=1 b=0
//> 1
//> 0
