-- IEEE 1076.3 package numeric_std: fills with zeros or with the sign; a signed one keeps its sign when cut
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(to_integer(resize(unsigned'("1010"), 6))) & " " & integer'image(to_integer(resize(unsigned'("1010"), 3)))
      & " " & integer'image(to_integer(resize(signed'("1010"), 6))) & " " & integer'image(to_integer(resize(signed'("1010"), 3)));
    wait;
  end process;
end;
--> note: 10 2 -6 -2
