module lock_interlock(input level_eq, input gate_shut, input boat_clear, input key,
                      output reg open_ok, output reg alarm);
  always @(level_eq or gate_shut or boat_clear or key)
    case ({level_eq, gate_shut, boat_clear, key})
      4'b1111: {open_ok, alarm} = 2'b10;
      4'b0001, 4'b0011, 4'b0101, 4'b0111,
      4'b1001, 4'b1011, 4'b1101: {open_ok, alarm} = 2'b01;
      default: {open_ok, alarm} = 2'b00;
    endcase
endmodule
