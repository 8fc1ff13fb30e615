// IEEE 1364-2005 clause 9.7.1: x counts as 0
module t;
  reg [3:0] d;
  initial #d $display("%0t", $time);
endmodule
//> 0
