module ballast_trim (
  input      [1:0] op,
  input      [7:0] fore, aft_tank,
  output reg [7:0] trim,
  output reg       over,
  output           level, bow_down
);
  assign level = ~|trim;
  assign bow_down = fore > aft_tank;
  always @* begin
    over = 0;
    case (op)
      0: {over, trim} = fore + aft_tank;
      1: {over, trim} = fore - aft_tank;
      2: {over, trim} = aft_tank - fore;
      3: trim = ({1'b0, fore} + aft_tank) >> 1;
    endcase
  end
endmodule
