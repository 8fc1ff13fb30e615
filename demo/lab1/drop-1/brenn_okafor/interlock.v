module lock_interlock(input level_eq, gate_shut, boat_clear, key, output open_ok, alarm);
  wire n_open;
  and  g1 (open_ok, level_eq, gate_shut, boat_clear, key);
  not  g2 (n_open, open_ok);
  and  g3 (alarm, key, n_open);
endmodule
