library ieee;
use ieee.std_logic_1164.all;

entity lock_interlock is
  port (
    level_eq, gate_shut, boat_clear, key : in  std_logic;
    open_ok, alarm                       : out std_logic
  );
end entity lock_interlock;

architecture dataflow of lock_interlock is
  signal safe, opens : std_logic;
begin
  safe    <= level_eq and gate_shut;
  opens   <= safe and boat_clear and key;
  open_ok <= opens;
  alarm   <= key and not opens;
end architecture dataflow;
