-- IEEE 1076-1993 clause 3: the place of the first digit that matches, from either side
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable u : unsigned(7 downto 0) := "00101000";
    variable s : signed(0 to 3) := "0111";
  begin
    report integer'image(find_leftmost(u, '1')) & " " & integer'image(find_rightmost(u, '1'));
    report integer'image(find_leftmost(s, '1')) & " " & integer'image(find_rightmost(s, '0'));
    report integer'image(find_leftmost(u and "00000000", '1'));
    wait;
  end process;
end;
--> note: 5 3
--> note: 1 0
--> note: -1
