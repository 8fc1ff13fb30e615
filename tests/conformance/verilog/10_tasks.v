// IEEE 1364-2005 clause 10: tasks and functions, static and automatic, with time and without
module t;
  integer total; reg [7:0] r;
  task add(input integer a, b, output integer s, inout integer acc); begin s = a + b; acc = acc + s; end endtask
  task old; input [3:0] v; output [3:0] w; begin #2 w = ~v; end endtask
  task automatic tell(input integer n); begin #n $display("%0t tell %0d", $time, n); end endtask
  task keep; integer count; begin if (count === 32'bx) count = 0; count = count + 1; $display("kept %0d", count); end endtask
  function [7:0] rev(input [7:0] v); integer i; for (i = 0; i < 8; i = i + 1) rev[i] = v[7 - i]; endfunction
  function automatic integer fib(input integer n); if (n < 2) fib = n; else fib = fib(n - 1) + fib(n - 2); endfunction
  function signed [7:0] neg; input signed [7:0] a; begin neg = -a; end endfunction
  function real half(input real x); half = x / 2; endfunction
  integer s, acc; reg [3:0] w;
  initial begin
    acc = 100; add(2, 3, s, acc); $display("%0d %0d", s, acc);
    old(4'b1010, w); $display("%0t %b", $time, w);
    fork tell(5); tell(2); tell(9); join
    keep; keep;
    $display("%b %0d %0d", rev(8'b1100_0001), fib(12), neg(8'sd5));
    $display("%g", half(5));
    begin : loop fork #100 $display("never"); begin #3 disable loop; end join end
    $display("%0t", $time);
    stop_me; $display("stopped %0t", $time);
  end
  task stop_me; fork #50 $display("never"); #4 disable stop_me; join endtask
endmodule
//> 5 105
//> 2 0101
//> 4 tell 2
//> 7 tell 5
//> 11 tell 9
//> kept 1
//> kept 2
//> 10000011 144 -5
//> 2.5
//> 14
//> stopped 18
