-- IEEE 1076-2008 clause 9.2.9: ?? is put in by itself
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal s : std_logic := 'H';
begin
  process begin
    if s then
      report "on";
    end if;
    wait;
  end process;
end;
--> note: on
