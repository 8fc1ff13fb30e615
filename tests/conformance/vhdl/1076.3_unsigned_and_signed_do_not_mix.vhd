-- IEEE 1076.3 package numeric_std: in one operator
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
  signal u : unsigned(3 downto 0);
  signal s : signed(3 downto 0);
begin
  u <= u + s; --! operator
end;
