// IEEE 1364-2005 clause 5.1.2: power before times before plus before shift before comparison
module t;
  initial $display("%0d %0d %b %b", 2+3*2**2, 16>>1+1, 1<2==1, 1'b1|1'b0&1'b0);
endmodule
//> 14 4 1 1
