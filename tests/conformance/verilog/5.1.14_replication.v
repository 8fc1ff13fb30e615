// IEEE 1364-2005 clause 5.1.14: a constant count of copies
module t;
  parameter n = 3;
  initial $display("%b %b", {n{2'b10}}, {2{1'b1, {2{1'b0}}}});
endmodule
//> 101010 100100
