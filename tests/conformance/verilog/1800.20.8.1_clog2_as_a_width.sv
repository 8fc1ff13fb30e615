// IEEE 1800-2017 clause 20.8.1: widths of counters from how far they count
module counter #(parameter int MOST = 10) (output logic [$clog2(MOST + 1)-1:0] y);
  assign y = MOST;
endmodule
module t;
  logic [3:0] a;
  logic [2:0] b;
  logic [0:0] c;
  counter #(10) ten(a);
  counter #(7) seven(b);
  counter #(1) one(c);
  initial #1 $display("%0d %0d %0d", a, b, c);
endmodule
//> 10 7 1
