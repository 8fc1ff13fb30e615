-- IEEE 1076.3 package numeric_std: a number that does not fit loses its upper digits
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(to_integer(to_unsigned(19, 4))) & " " & integer'image(to_integer(to_signed(9, 4)));
    wait;
  end process;
end;
--> warning: NUMERIC_STD.TO_UNSIGNED: vector truncated
--> warning: NUMERIC_STD.TO_SIGNED: vector truncated
--> note: 3 -7
