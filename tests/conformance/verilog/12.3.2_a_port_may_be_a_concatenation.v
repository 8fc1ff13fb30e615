// IEEE 1364-2005 clause 12.3.2: without a name it is connected by order
module old (a, {b, c}, {y, z});
  input a, b, c;
  output y, z;
  assign y = a & b & ~c, z = c;
endmodule
module t;
  wire [1:0] k;
  old v (1'b1, 2'b10, k);
  initial #1 $display("%b", k);
endmodule
//> 10
