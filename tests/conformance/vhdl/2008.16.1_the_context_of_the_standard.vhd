-- IEEE 1076-2008 clause 16.1: ieee_std_context uses std_logic_1164 and numeric_std
library ieee;
context ieee.ieee_std_context;
entity t is end;
architecture a of t is
  signal n : signed(3 downto 0) := "1101";
  signal c : std_logic := '1';
begin
  process begin
    report integer'image(to_integer(n)) & std_logic'image(c);
    wait;
  end process;
end;
--> note: -3'1'
