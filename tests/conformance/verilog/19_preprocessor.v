// IEEE 1364-2005 clause 19: macros, conditions, and default_nettype
`define WIDTH 8
`define MAX(a, b) ((a) > (b) ? (a) : (b))
`define TWO_LINES $display("one"); \
  $display("two");
`define NAME u1
`define NOTHING
`ifdef MISSING
  not verilog at all ((
`elsif WIDTH
  `define CHOSEN 1
`else
  `error
`endif
`ifndef WIDTH
`else
module t; `NOTHING
  reg [`WIDTH-1:0] r; initial begin r = `MAX(3, `MAX(7, 5)); $display("%0d %0d", r, `CHOSEN); `TWO_LINES $display("%s", "`WIDTH stays"); end
  sub `NAME();
  `undef WIDTH
  `ifdef WIDTH initial $display("wrong"); `endif
endmodule
`endif
`default_nettype none
module sub; wire w; assign w = 1; initial #1 $display("%b %m", w); endmodule
//> 7 1
//> one
//> two
//> `WIDTH stays
//> 1 t.u1
