-- IEEE 1164 package std_logic_1164: 0 decides, all else is X or U
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
begin
  process
    variable x : std_logic := 'X';
    variable u : std_logic := 'U';
    variable h : std_logic := 'H';
  begin
    report std_logic'image(x and '0') & std_logic'image(x and '1') & std_logic'image(u and '1') & std_logic'image(h and '1') & std_logic'image(not h);
    wait;
  end process;
end;
--> note: '0''X''U''1''0'
