// IEEE 1800-2017 clause 23.3.3.2: a connection is cut or filled like an assignment
module inner(input logic [3:0] a, output logic [3:0] y);
  assign y = a + 1;
endmodule
module t;
  logic [7:0] wide = 8'h2f, got;
  logic signed [1:0] narrow = -1;
  logic [3:0] back;
  inner one(.a(wide), .y(got));
  inner two(.a(narrow), .y(back));
  initial #1 $display("%b %b", got[3:0], back);
endmodule
//> 0000 0000
