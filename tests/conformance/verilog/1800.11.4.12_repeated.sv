// IEEE 1800-2017 clause 11.4.12: a repetition may be of nothing beside something else
module t;
  parameter N = 0;
  logic [3:0] a = 4'b1001;
  initial $display("%b %b", {{N{1'b1}}, a}, {2{a[1:0]}});
endmodule
//> 1001 0101
