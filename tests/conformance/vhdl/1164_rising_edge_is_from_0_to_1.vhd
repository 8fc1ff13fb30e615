-- IEEE 1164 package std_logic_1164: not from U or X
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal c : std_logic;
begin
  c <= '1' after 1 ns, '0' after 2 ns, 'H' after 3 ns, 'L' after 4 ns, 'X' after 5 ns, '1' after 6 ns;
  process (c) begin
    if rising_edge(c) then
      report "up " & integer'image(now / 1 ns);
    end if;
    if falling_edge(c) then
      report "down " & integer'image(now / 1 ns);
    end if;
  end process;
end;
--> note: down 2
--> note: up 3
--> note: down 4
