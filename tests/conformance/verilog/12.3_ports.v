// IEEE 1364-2005 clause 12.3: ports in every style, open, of expressions, of other widths
module a1(x, y, .z(inner), .pq({p, q})); input x; output y; output [1:0] inner; input p, q; reg y; assign inner = {p, q}; always @* y = ~x; endmodule
module a2(input wire [3:0] i, output reg signed [3:0] o = 5, output wire [7:0] w, inout tri b); assign w = i; assign b = i[0] ? 1'b1 : 1'bz; endmodule
module a3; initial #3 $display("no ports"); endmodule
module a4(input [1:0] s, output [1:0] y); assign y = ~s; endmodule
module t;
  reg x, p = 1, q = 0; wire y, b; wire [1:0] z, arr; wire [3:0] o; wire [11:0] wide; wire [7:0] bus;
  a1 u1(x, y, z, {p, q}); a2 u2(.i(4'd9), .o(o), .w(wide[7:0]), .b(b)); a2 u3(.i(4'd2), .o(), .w(), .b(b)); a3 u4();
  a4 g[3:0](.s({4{2'b01}}), .y(bus));
  assign wide[11:8] = 0;
  initial begin x = 0; #1 $display("%b %b %0d %b %b %b", y, z, $signed(o), wide, b, bus); end
endmodule
//> 1 10 5 000000001001 1 10101010
//> no ports
