// IEEE 1364-2005 clause 17.11.1: the smallest power of two that is not less
module t;
  initial $display("%0d %0d %0d %0d", $clog2(0), $clog2(1), $clog2(8), $clog2(9));
endmodule
//> 0 0 3 4
