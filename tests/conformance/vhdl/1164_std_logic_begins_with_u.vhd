-- IEEE 1164 package std_logic_1164: until somebody drives it
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal s : std_logic;
begin
  process begin
    report std_logic'image(s);
    wait;
  end process;
end;
--> note: 'U'
