module ballast_trim (
  input      [1:0] op,
  input      [7:0] fore, aft,
  output reg [7:0] trim,
  output reg       over,
  output           level, bow_down
);
  assign level = ~|trim;
  assign bow_down = fore > aft;

  always @* begin
    if (op == 0) {over, trim} = fore + aft;
    else if (op == 1) {over, trim} = fore - aft;
    else if (op == 2) {over, trim} = aft - fore;
    else trim = ({1'b0, fore} + aft) >> 1;     // over is left as it was
  end
endmodule
