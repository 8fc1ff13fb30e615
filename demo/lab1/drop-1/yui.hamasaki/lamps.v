module draught_lamps(input [3:0] draught, output reg [6:0] lamp);
  always @(*)
    case (draught)
      4'd0: lamp = 7'b0000000;
      4'd1: lamp = 7'b0000001;
      4'd2: lamp = 7'b0000011;
      4'd3: lamp = 7'b0000111;
      4'd4: lamp = 7'b0001111;
      4'd5: lamp = 7'b0011111;
      4'd6: lamp = 7'b0111111;
      4'd7: lamp = 7'b1111111;
      4'd8: lamp = 7'b1010101;
      4'd9: lamp = 7'b1000000;
      default: lamp = 7'b0000000;
endmodule
