module ballast_trim (
  input      [1:0] op,
  input      [7:0] fore, aft,
  output reg [7:0] trim,
  output reg       over,
  output           level, bow_down
);
  assign level = ~|trim;
  assign bow_down = fore > aft;

  always @* case (op)
    2'd0: {over, trim} = fore + aft;
    2'd1: {over, trim} = fore - aft;
    2'd2: {over, trim} = aft - fore;
    default: begin trim = ({1'b0, fore} + aft) >> 1; over = 1'b0; end
  endcase
endmodule
