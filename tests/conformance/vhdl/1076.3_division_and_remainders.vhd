-- IEEE 1076.3 package numeric_std: truncation, signs of rem and mod
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable s : signed(4 downto 0) := to_signed(-7, 5);
  begin
    report integer'image(to_integer(s / 2)) & " " & integer'image(to_integer(s rem 3)) & " " & integer'image(to_integer(s mod 3));
    wait;
  end process;
end;
--> note: -3 -1 2
