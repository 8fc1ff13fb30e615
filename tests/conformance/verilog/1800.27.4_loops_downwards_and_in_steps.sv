// IEEE 1800-2017 clause 27.4: any step of a generate loop
module t;
  logic [7:0] y;
  for (genvar i = 7; i >= 0; i -= 2) begin : g
    assign y[i] = 1;
    assign y[i-1] = i > 3;
  end
  initial #1 $display("%b", y);
endmodule
//> 11111010
