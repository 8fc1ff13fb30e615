module ballast_trim (
  input      [1:0] op,
  input      [7:0] fore, aft,
  output reg [7:0] trim,
  output reg       over,
  output           level, bow_down
);
  function [8:0] work(input [1:0] what, input [7:0] a, b);
    case (what)
      0: work = a + b;
      1: work = a - b;
      2: work = b - a;
      3: work = ({1'b0, a} + b) / 2;
    endcase
  endfunction

  always @* {over, trim} = work(op, fore, aft);
  assign level = work(op, fore, aft) == 0;     // looks at the carry too
  assign bow_down = fore > aft;
endmodule
