-- IEEE 1076.3 package numeric_std: sums are as wide as the wider operand
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable u : unsigned(3 downto 0) := "1111";
    variable w : unsigned(5 downto 0) := "000001";
  begin
    report integer'image(to_integer(u + 1)) & " " & integer'image(to_integer(u + w)) & " " & integer'image(to_integer(u - 15 - 1));
    wait;
  end process;
end;
--> note: 0 16 15
