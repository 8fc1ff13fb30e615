module lock_interlock(input level_eq, gate_shut, boat_clear, key, output open_ok, alarm);
  assign open_ok = level_eq & gate_shut & boat_clear;
  assign alarm   = key & ~(level_eq & gate_shut & boat_clear);
endmodule
