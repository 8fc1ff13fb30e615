module lock_interlock(input level_eq, gate_shut, boat_clear, key, output open_ok, output reg alarm);
  assign open_ok = level_eq & gate_shut & boat_clear & key;

  always @(*) begin
    if (key)
      alarm = ~open_ok;
  end
endmodule
