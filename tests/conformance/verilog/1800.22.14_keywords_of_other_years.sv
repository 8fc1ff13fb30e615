// IEEE 1800-2017 clause 22.14: words that came later are names in a text of 2001
`begin_keywords "1364-2001"
module m(output [3:0] y);
  wire [3:0] logic, bit;
  assign logic = 4'd3, bit = logic + 4'd1;
  assign y = bit;
endmodule
`end_keywords
module t;
  logic [3:0] y;
  m u(y);
  initial #1 $display("%0d", y);
endmodule
//> 4
