-- IEEE 1076-2008 clause 15.8: a width before the base
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal v : std_logic_vector(5 downto 0) := 6X"2F";
  signal w : std_logic_vector(5 downto 0) := 6SB"101";
begin
  process begin
    report to_string(v) & " " & to_string(w);
    wait;
  end process;
end;
--> note: 101111 111101
