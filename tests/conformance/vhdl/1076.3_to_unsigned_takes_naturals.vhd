-- IEEE 1076.3 package numeric_std: a negative number ends the run
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable n : integer := -1;
  begin
    report integer'image(to_integer(to_unsigned(n, 4))); --! run
    wait;
  end process;
end;
