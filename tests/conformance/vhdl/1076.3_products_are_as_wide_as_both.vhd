-- IEEE 1076.3 package numeric_std: together
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable u : unsigned(3 downto 0) := "1111";
    variable s : signed(3 downto 0) := "1000";
    variable p : unsigned(7 downto 0);
  begin
    p := u * u;
    report integer'image(to_integer(p)) & " " & integer'image(to_integer(s * s));
    wait;
  end process;
end;
--> note: 225 64
