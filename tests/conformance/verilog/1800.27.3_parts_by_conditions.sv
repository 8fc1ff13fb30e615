// IEEE 1800-2017 clause 27.3: what is generated depends on a parameter, and what is not taken is not looked at
module m #(int W = 4) (input logic [W-1:0] a, output logic y);
  if (W == 1) assign y = a;
  else if (W < 4) begin : narrow assign y = ^a; end
  else begin : broad assign y = a[W-1] & a[W-2]; end
endmodule
module t;
  logic p, q, r;
  m #(1) u(1'b1, p); m #(2) v(2'b11, q); m #(6) w(6'h30, r);
  initial #1 $display("%b %b %b", p, q, r);
endmodule
//> 1 0 1
