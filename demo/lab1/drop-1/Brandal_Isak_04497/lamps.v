module draught_lamps(input [3:0] draught, output reg [6:0] lamp);
  always @(*)
    case (draught)
      4'd0: lamp = 7'b1111111;
      4'd1: lamp = 7'b1111110;
      4'd2: lamp = 7'b1111100;
      4'd3: lamp = 7'b1111000;
      4'd4: lamp = 7'b1110000;
      4'd5: lamp = 7'b1100000;
      4'd6: lamp = 7'b1000000;
      4'd7: lamp = 7'b0000000;
      4'd8: lamp = 7'b0101010;
      4'd9: lamp = 7'b0111111;
      default: lamp = 7'b1111111;
    endcase
endmodule
