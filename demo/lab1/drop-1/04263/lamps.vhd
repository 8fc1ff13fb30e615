library ieee;
use ieee.std_logic_1164.all;

entity draught_lamps is
  port (draught : in std_logic_vector(3 downto 0); lamp : out std_logic_vector(6 downto 0));
end draught_lamps;

architecture table of draught_lamps is
begin
  with draught select
    lamp <= "0000000" when "0000",
            "0000001" when "0001",
            "0000011" when "0010",
            "0000111" when "0011",
            "0001111" when "0100",
            "0001111" when "0101",
            "0111111" when "0110",
            "1111111" when "0111",
            "1010101" when "1000",
            "1000000" when "1001",
            "0000000" when others;
end table;
