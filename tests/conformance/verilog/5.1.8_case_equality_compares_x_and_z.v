// IEEE 1364-2005 clause 5.1.8: === and !== always give 0 or 1
module t;
  initial $display("%b%b%b%b", 2'b1x === 2'b1x, 2'b1x === 2'b1z, 2'b1x !== 2'b1x, 4'b0011 === 2'b11);
endmodule
//> 1001
