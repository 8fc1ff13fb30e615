-- IEEE 1076-2008 clause 10.9: case? takes - for anything
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal v : std_logic_vector(2 downto 0) := "011";
begin
  process (v) begin
    case? v is
      when "1--" => report "high";
      when "01-" => report "middle";
      when others => report "low";
    end case?;
  end process;
end;
--> note: middle
