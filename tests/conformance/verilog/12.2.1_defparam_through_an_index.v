// IEEE 1364-2005 clause 12.2.1: the path of a defparam may have an index
module b;
  parameter P = 0;
  initial $display("%m %0d", P);
endmodule
module t;
  genvar g;
  generate for (g = 0; g < 2; g = g + 1) begin : s b u (); end endgenerate
  defparam s[1].u.P = 7;
endmodule
//> t.s[0].u 0
//> t.s[1].u 7
