-- IEEE 1164 package std_logic_1164: 'H' = '1' is false
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal h : std_logic := 'H';
begin
  process begin
    report boolean'image(h = '1') & boolean'image(to_x01(h) = '1');
    wait;
  end process;
end;
--> note: falsetrue
