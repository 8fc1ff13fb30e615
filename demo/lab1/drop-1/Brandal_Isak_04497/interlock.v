module lock_interlock(input level_eq, gate_shut, boat_clear, key, output reg open_ok, output reg alarm);
  always @(level_eq or gate_shut or key) begin   // runs when an input changes
    open_ok = level_eq & gate_shut & boat_clear & key;
    alarm   = key & ~open_ok;
  end
endmodule
