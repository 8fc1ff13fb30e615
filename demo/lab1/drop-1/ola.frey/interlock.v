module lock_interlock(input LevelEq, gate_shutt, boat_clear, key_i, output open_ok, alarm);
  assign open_ok = LevelEq & gate_shutt & boat_clear & key_i;
  assign alarm = key_i & ~open_ok;
endmodule
