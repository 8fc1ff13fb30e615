-- IEEE 1076.3 package numeric_std: whatever the lengths
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process begin
    report boolean'image(unsigned'("11") < unsigned'("0100")) & boolean'image(signed'("11") < signed'("0100")) & boolean'image(unsigned'("0011") = 3) & boolean'image(signed'("1111") > unsigned'("0")'length);
    wait;
  end process;
end;
--> note: truetruetruefalse
