module lock_interlock(level_eq, gate_shut, boat_clear, key, open_ok, alarm);
  input level_eq, gate_shut, boat_clear, key;
  output open_ok, alarm;

  wire safe;
  assign safe    = level_eq & gate_shut;
  assign open_ok = safe & boat_clear & key;
  assign alarm   = key & ~open_ok;
endmodule
