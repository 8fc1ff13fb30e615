-- IEEE 1164 package std_logic_1164: weak values become strong ones, all others X
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
begin
  process begin
    report std_logic'image(to_x01('L')) & std_logic'image(to_x01('H')) & std_logic'image(to_x01('Z')) & bit'image(to_bit('H'));
    wait;
  end process;
end;
--> note: '0''1''X''1'
