-- IEEE 1076.3 package numeric_std: by any amount, with zeros or the sign
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(to_integer(shift_left(unsigned'("0011"), 2))) & " " & integer'image(to_integer(shift_right(unsigned'("1100"), 2)))
      & " " & integer'image(to_integer(shift_right(signed'("1000"), 2))) & " " & integer'image(to_integer(rotate_left(unsigned'("1001"), 1))) & " " & integer'image(to_integer(shift_left(unsigned'("0011"), 9)));
    wait;
  end process;
end;
--> note: 12 3 -2 3 0
