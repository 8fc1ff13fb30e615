module ballast_trim (
  input      [1:0] op,
  input      [7:0] fore, aft,
  output reg [7:0] trim,
  output reg       over,
  output           level, bow_down
);
  task steps(input [7:0] a, b, input minus, output [7:0] sum, output carry);
    reg [8:0] c; integer i;
    begin
      c[0] = minus;
      for (i = 0; i < 8; i = i + 1) begin
        sum[i] = a[i] ^ (b[i] ^ minus) ^ c[i];
        c[i + 1] = (a[i] & (b[i] ^ minus)) | (c[i] & (a[i] ^ b[i] ^ minus));
      end
      carry = c[8] ^ minus;
    end
  endtask

  reg [7:0] half; reg top;
  always @* begin
    steps(fore, aft, 1'b0, half, top);
    case (op)
      0: steps(fore, aft, 1'b0, trim, over);
      1: steps(fore, aft, 1'b1, trim, over);
      2: steps(aft, fore, 1'b1, trim, over);
      3: begin trim = {top, half[7:1]}; over = 0; end
    endcase
  end
  assign level = !trim;
  assign bow_down = fore > aft;
endmodule
