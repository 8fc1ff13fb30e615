module lock_interlock(level_eq, gate_shut, boat_clear, key, open_ok, alarm);
  input level_eq, gate_shut, boat_clear, key;
  output open_ok, alarm;
  reg alarm;
  wire both;
  and a1(both, level_eq, gate_shut);
  and a2(open_ok, both, boat_clear, key);

  always @* begin
    if (key == 1 && !(both | boat_clear))
      alarm = 1;
    else
      alarm = 0;
  end
endmodule
