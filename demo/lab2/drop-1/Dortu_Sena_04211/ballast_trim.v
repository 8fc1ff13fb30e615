module trimmer #(parameter W = 8) (input [1:0] op, input [W-1:0] fore, aft, output [W-1:0] trim, output over);
  wire [W-1:0] a = op == 2 ? aft : fore;
  wire [W-1:0] b = op == 2 ? fore : aft;
  wire minus = op[0] ^ op[1];
  wire [W:0] c; genvar i; wire [W-1:0] s;
  assign c[0] = minus;
  generate for (i = 0; i < W; i = i + 1) begin : cell_
    wire y;
    xor x1 (y, b[i], minus);
    assign {c[i + 1], s[i]} = a[i] + y + c[i];
  end endgenerate
  assign trim = &op ? {c[W], s[W-1:1]} : s;
  assign over = &op ? 1'b0 : c[W] ^ minus;
endmodule

module ballast_trim (input [1:0] op, input [7:0] fore, aft, output [7:0] trim, output over, level, bow_down);
  trimmer #(8) core (op, fore, aft, trim, over);
  assign level = ~|trim;
  assign bow_down = fore > aft;
endmodule
