-- IEEE 1076.3 package numeric_std: numeric_bit has no unknown values
library ieee;
use ieee.numeric_bit.all;
entity t is end;
architecture a of t is
begin
  process
    variable u : unsigned(3 downto 0) := "0111";
  begin
    u := u + 2;
    report integer'image(to_integer(u));
    wait;
  end process;
end;
--> note: 9
