// IEEE 1364-2005 clause 4.5: an undeclared name left of a continuous assignment is a wire of one bit
module t;
  assign y = 2'b01;
  initial #1 $display("%b", y);
endmodule
//> 1
