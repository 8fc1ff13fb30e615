module ballast_trim (
  input      [1:0] op,
  input      [7:0] fore, aft,
  output reg [7:0] trim,
  output reg       over,
  output           level, bow_down
);
  assign level = ~|trim;
  assign bow_down = fore >= aft;

  always @(op or fore) begin
    over = 0;
    case (op)
      0: {over, trim} = fore + aft;
      1: {over, trim} = fore - aft;
      2: {over, trim} = aft - fore;
      3: trim = ({1'b0, fore} + aft) >> 1;
    endcase
  end
endmodule
