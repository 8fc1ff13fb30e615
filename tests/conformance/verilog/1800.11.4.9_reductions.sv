// IEEE 1800-2017 clause 11.4.9: an operator before a word takes all its digits
module t;
  logic [3:0] a = 4'b1011;
  initial $display("%b %b %b %b %b %b", &a, |a, ^a, ~&a, ~|a, ~^a);
endmodule
//> 0 1 1 1 0 0
