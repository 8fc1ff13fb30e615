-- IEEE 1164: the taught package std_logic_misc reduces vectors
library ieee;
use ieee.std_logic_1164.all;
use ieee.std_logic_misc.all;
entity t is end;
architecture a of t is
begin
  process
    variable s : std_logic_vector(3 downto 0) := "0110";
  begin
    report std_logic'image(or_reduce(s)) & std_logic'image(and_reduce(s)) & std_logic'image(xor_reduce(s))
      & std_logic'image(nor_reduce(s)) & std_logic'image(nand_reduce(s)) & std_logic'image(xnor_reduce(s));
    wait;
  end process;
end;
--> note: '1''0''0''0''1''1'
