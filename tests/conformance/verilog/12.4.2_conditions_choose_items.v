// IEEE 1364-2005 clause 12.4.2: the branch that is not taken need not even be right in its widths
module t;
  parameter wide = 0;
  generate
    if (wide) begin : g
      wire [7:0] v = 8'd200;
    end else begin : g
      wire [3:0] v = 4'd9;
    end
  endgenerate
  initial #1 $display("%0d", g.v);
endmodule
//> 9
