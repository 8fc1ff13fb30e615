// IEEE 1364-2005 clause 8, 9, 12 and 17 together: names, timing and printing
primitive ff(output reg q = 1'b1, input c, d); table r ? : ? : 0; f ? : ? : -; * ? : ? : -; ? * : ? : -; endtable endprimitive
module lib #(parameter A=1, B=2)(input a, output o); function integer twice(input integer x); twice = 2*x + A; endfunction assign o = a; wire hidden = ~a; endmodule
module t;
  reg a = 1, c = 0, clk = 0, d = 0, x, y; wire o, q, c2 = clk; reg [3:0] p, r; integer i; reg [8*3:1] s; event e; reg [7:0] cnt; wire [1:0] pr; reg [1:0] in;
  lib #(.A(5)) u(a, o); ff f(q, c, d);
  assign #2 pr = in;
  always @(posedge clk) p <= p + 1; always @(posedge c2) r <= p;
  initial begin
    $display("%0d %b %b", u.twice(4), u.hidden, q);
    $display("%s|%s", 1 ? "yes" : "no", 0 ? "yes" : "no");
    p = 0; #1 clk = 1; #1 $display("%0d %0d", p, r);
    in = 0; #1 in = 3; #1 in = 1; #3 $display("%b", pr);
    for (cnt = 250; cnt > 5; cnt = cnt + 1) i = cnt; $display("%0d", i);
    fork : f1 begin #5 x = 1; end begin #3 disable f1; end join $display("%b %0t", x, $time);
    repeat (2) begin @(negedge clk or posedge d) $display("edge %0t", $time); end
    wait (a == 0) ; $display("a is 0 at %0t", $time);
    @e $display("e at %0t", $time);
    if ($test$plusargs("x")) $display("plus"); $display("%0d", $stime);
    y = 1'bz; $display("%b %b", y & 1, y | 1); $display("%b", {y, 1'b0} + 2'd1);
    casex ({y, a}) 2'b11: $display("11"); 2'b10: $display("10"); endcase
    begin : a1 reg [3:0] v; v = 9; begin : b1 reg v; v = 1; a1.v = 3; $display("%0d %0d", v, a1.v); end end
    $display("%0t", $time); #5.6 $display("%0t", $time); i = 5; #i $display("%0t", $time); #(i*2) $display("%0t", $time);
    $write("%d,", 8'd3); $write("%0d;", 8'd3); $write("%3d|%-3d|", 8'd3, 8'd3); $display;
    $strobeb(4'd5); $displayh("x", 8'd255, "y"); #1 $finish(0);
  end
  initial begin #20 d = 1; #5 clk = 0; #5 a = 0; #5 -> e; end
endmodule
//> 13 0 1
//> yes| no
//> 1 0
//> 01
//> 255
//> x 10
//> edge 20
//> edge 25
//> a is 0 at 30
//> e at 35
//> 35
//> 0000000000000000000000000000000x 00000000000000000000000000000001
//> xx
//> 10
//> 1 3
//> 35
//> 41
//> 46
//> 56
//>   3,3;  3|3  |
//> xffy
//> 0101
