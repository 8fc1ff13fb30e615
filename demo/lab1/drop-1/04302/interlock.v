module lock_interlock(input level_eq, gate_shut, boat_clear, key,
                      output open_ok, output alarm);
  // the gate may open when nothing is in the way
  wire safe = level_eq && gate_shut;
  assign open_ok = safe && boat_clear && key;
  wire shut = !(safe || boat_clear);
  assign alarm = key && shut;
endmodule
