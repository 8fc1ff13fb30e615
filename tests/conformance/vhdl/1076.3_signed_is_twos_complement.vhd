-- IEEE 1076.3 package numeric_std: sign and negation
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable s : signed(3 downto 0) := "1000";
  begin
    report integer'image(to_integer(s)) & " " & integer'image(to_integer(-s)) & " " & integer'image(to_integer(abs s)) & " " & integer'image(to_integer(s - 1));
    wait;
  end process;
end;
--> note: -8 -8 -8 7
