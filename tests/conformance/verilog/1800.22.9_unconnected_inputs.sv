// IEEE 1800-2017 clause 22.9: `unconnected_drive says what an input has to which nothing is connected
module low(input a, output y); assign y = a; endmodule
`unconnected_drive pull1
module high(input a, input [2:0] b, output y, output [2:0] z); assign y = a, z = b; endmodule
`nounconnected_drive
module t;
  wire p, q, r; wire [2:0] z, w;
  low u(.a(), .y(p));
  high v(.a(), .y(q), .z(z));
  high x(.a(1'b0), .b(), .y(r), .z(w));
  initial #1 $display("%b %b %b %b %b", p, q, z, r, w);
endmodule
//> z 1 111 0 111
