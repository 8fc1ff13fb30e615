// IEEE 1364-2005 clause 6.2.1: as if an initial block gave it
module t;
  reg [3:0] v = 4'd9;
  initial #1 $display("%0d", v);
endmodule
//> 9
