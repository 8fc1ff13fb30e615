-- IEEE 1076-2008 clause 9.2.3: ?= gives a std_logic
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal v : std_logic_vector(1 downto 0) := "1X";
begin
  process begin
    report std_logic'image(v ?= "1-") & std_logic'image(v ?= "0-") & std_logic'image(v ?= "11");
    wait;
  end process;
end;
--> note: '1''0''X'
