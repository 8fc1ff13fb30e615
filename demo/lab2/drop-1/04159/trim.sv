typedef enum logic [1:0] {SUM, FORE_LESS, AFT_LESS, MIDDLE} op_t;

module ballast_trim (
  input  logic [1:0] op,
  input  logic [7:0] fore, aft,
  output logic [7:0] trim,
  output logic       over, level, bow_down
);
  logic [8:0] wide;
  always_comb begin
    wide = '0;
    unique case (op)
      SUM:       wide = fore + aft;
      FORE_LESS: wide = fore - aft;
      AFT_LESS:  wide = aft - fore;
      MIDDLE:    wide = ({1'b0, fore} + aft) >> 1;
    endcase
  end
  assign trim = wide[7:0];
  assign over = wide[8];
  assign level = trim == '0;
  assign bow_down = fore > aft;
endmodule
