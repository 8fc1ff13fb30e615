// lock gate interlock, behavioural
module lock_interlock (
  input  wire level_eq,
  input  wire gate_shut,
  input  wire boat_clear,
  input  wire key,
  output reg  open_ok,
  output reg  alarm
);
  always @(*) begin
    open_ok = 1'b0;
    alarm   = 1'b0;
    if (key) begin
      if (level_eq && gate_shut && boat_clear)
        open_ok = 1'b1;
      else
        alarm = 1'b1;
    end
  end
endmodule
