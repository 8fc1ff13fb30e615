// IEEE 1364-2005 clause 12.4.1: named by block and number
module t;
  genvar i;
  generate
    for (i = 0; i < 3; i = i + 1) begin : g
      wire [3:0] v = i * i;
    end
  endgenerate
  initial #1 $display("%0d %0d", g[1].v, g[2].v);
endmodule
//> 1 4
