// IEEE 1800-2017 clause 23.2.2.4: which counts where nothing is connected
module m (input logic [3:0] a = 5, input logic b = 1'b1, output logic [4:0] y);
  assign y = {b, a};
endmodule
module t;
  logic [4:0] p, q;
  logic [3:0] a = 2;
  m u (.a(a), .b(1'b0), .y(p));
  m v (.y(q));
  initial #1 $display("%b %b", p, q);
endmodule
//> 00010 10101
