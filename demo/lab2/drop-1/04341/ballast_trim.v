// runs for ever in my simulator, sorry
module ballast_trim (
  input      [1:0] op,
  input      [7:0] fore, aft,
  output reg [7:0] trim,
  output reg       over,
  output           level, bow_down
);
  assign level = ~|trim;
  assign bow_down = fore > aft;
  integer i;
  always @* begin
    trim = 0;
    for (i = 0; i >= 0; i = i) trim = trim + 1;
    over = 0;
  end
endmodule
