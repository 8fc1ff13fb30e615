-- IEEE 1076.3 package numeric_std: gives 0 with a warning
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable u : unsigned(1 downto 0) := "1X";
  begin
    report integer'image(to_integer(u));
    wait;
  end process;
end;
--> warning: NUMERIC_STD.TO_INTEGER: metavalue detected, returning 0
--> note: 0
