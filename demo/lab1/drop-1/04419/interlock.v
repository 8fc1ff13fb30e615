module lock_interlock(level_eq, gate_shut, boat_clear, key, open_ok, alarm);
input level_eq, gate_shut, boat_clear, key;
output reg open_ok, alarm;
always @(key or open_ok)
  if (key == 1'b1) alarm = !open_ok;
always @* open_ok = level_eq && gate_shut && boat_clear && key;
endmodule
