// IEEE 1364-2005 clause 3.5.1: a number without a size
module t;
  initial $display("%0d %0d", $bits('hff), $bits(5));
endmodule
//> 32 32
