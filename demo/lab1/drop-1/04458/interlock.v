library ieee;
use ieee.std_logic_1164.all;

entity lock_interlock is
  port (level_eq, gate_shut, boat_clear, key : in std_logic;
        open_ok, alarm : out std_logic);
end lock_interlock;

architecture rtl of lock_interlock is
begin
  open_ok <= level_eq and gate_shut and boat_clear and key;
  alarm <= key and not (level_eq and gate_shut and boat_clear);
end rtl;
