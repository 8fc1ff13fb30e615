// IEEE 1364-2005 clause 4.5: an undeclared name in a list of connections is a wire of one bit
module inv(input a, output y);
  assign y = ~a;
endmodule
module t;
  inv u(1'b0, q);
  initial #1 $display("%b", q);
endmodule
//> 1
