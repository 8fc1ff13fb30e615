-- IEEE 1076-2008 clause 5.7: of anything that has an image
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal v : std_logic_vector(3 downto 0) := "01ZX";
begin
  process begin
    report to_string(42) & " " & to_string(true) & " " & to_string(v);
    wait;
  end process;
end;
--> note: 42 true 01ZX
