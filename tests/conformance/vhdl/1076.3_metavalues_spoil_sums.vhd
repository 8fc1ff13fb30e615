-- IEEE 1076.3 package numeric_std: every digit becomes X
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable u : unsigned(1 downto 0) := "0X";
    variable r : unsigned(1 downto 0);
  begin
    r := u + 1;
    report std_logic'image(r(1)) & std_logic'image(r(0));
    wait;
  end process;
end;
--> note: 'X''X'
