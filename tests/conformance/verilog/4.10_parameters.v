// IEEE 1364-2005 clause 4.10, 12.2: parameters, localparam, overriding by order, name and defparam
module unit #(parameter W = 4, parameter [7:0] INIT = 1) (output [W-1:0] y);
  localparam TWICE = W * 2; parameter signed S = -1; parameter real R = 1.5;
  assign y = INIT;
  initial #1 $display("%m W=%0d INIT=%0d TWICE=%0d S=%0d R=%g y=%b", W, INIT, TWICE, S, R, y);
endmodule
module t;
  wire [3:0] a; wire [7:0] b, c; wire [2:0] d;
  unit u1(a);
  unit #(8, 300) u2(b);
  unit #(.INIT(7), .W(8), .S(5)) u3(c);
  unit #(.W(3)) u4(d);
  defparam u4.INIT = 6, u4.R = 2;
  function integer log2(input integer n); for (log2 = 0; n > 1; log2 = log2 + 1) n = n >> 1; endfunction
  localparam L = log2(100); parameter P = 3'd5 + 1; wire [log2(16)-1:0] wide;
  initial #2 $display("%0d %0d %0d %0d", L, P, $bits(wide), $clog2(100));
endmodule
//> t.u1 W=4 INIT=1 TWICE=8 S=-1 R=1.5 y=0001
//> t.u2 W=8 INIT=44 TWICE=16 S=-1 R=1.5 y=00101100
//> t.u3 W=8 INIT=7 TWICE=16 S=5 R=1.5 y=00000111
//> t.u4 W=3 INIT=6 TWICE=6 S=-1 R=2 y=110
//> 6 6 4 7
