// IEEE 1364-2005 clause 9.2 and 11.4: blocking and non-blocking assignments, and delays inside them
module t;
  reg a, b, c, d; reg [7:0] x, y; integer i;
  initial begin
    a = 0; b = 1;
    a <= b; b <= a; #1 $display("swap %b %b", a, b);
    a = b; b = a; $display("copy %b %b", a, b);
    x = 1; x <= 2; x <= 3; $display("%0d", x); #1 $display("%0d", x);
    x = #4 x + 1; $display("%0d at %0t", x, $time);
    x <= #5 8'd50; x <= #2 8'd20; y = x; #1 $display("%0d", x); #1 #0 $display("%0d", x); #3 #1 $display("%0d", x);
    c = 0; d = 0; c <= 1; #0 $display("inactive before nba: %b", c); #1 $display("%b", c);
    i = 0; x = 0; for (i = 0; i < 3; i = i + 1) x <= x + 1; #1 $display("%0d", x);
    i = 1; x = 8'd0; x[i] <= 1; i = 3; #1 $display("%b", x);
    fork a = #2 b; b = #2 ~a; join
    $display("%b %b", a, b);
  end
endmodule
//> swap 1 0
//> copy 0 0
//> 1
//> 3
//> 4 at 6
//> 4
//> 4
//> 50
//> inactive before nba: 0
//> 1
//> 1
//> 00000010
//> 0 1
