module draught_lamps(input draught3, draught2, draught1, draught0, output reg [6:0] lamp);
  wire [3:0] draught = {draught3, draught2, draught1, draught0};
  always @* case (draught)
    4'b0000: lamp = 7'b0000000;
    4'b0001: lamp = 7'b0000001;
    4'b0010: lamp = 7'b0000011;
    4'b0011: lamp = 7'b0000111;
    4'b0100: lamp = 7'b0001111;
    4'b0101: lamp = 7'b0011111;
    4'b0110: lamp = 7'b0111111;
    4'b0111: lamp = 7'b1111111;
    4'b1000: lamp = 7'b1010101;
    4'b1001: lamp = 7'b1000000;
    default: lamp = 0;
  endcase
endmodule
