// IEEE 1800-2017 clause 11.2.2: unknown where an unknown digit decides, exact with ===
module t;
  logic [1:0] a [2] = '{2'b10, 2'b0x}, b [2] = '{2'b10, 2'b0x}, c [2] = '{2'b11, 2'b0x};
  initial $display("%b %b %b", a == b, a === b, a == c);
endmodule
//> x 1 0
