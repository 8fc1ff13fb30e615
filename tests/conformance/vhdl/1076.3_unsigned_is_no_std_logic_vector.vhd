-- IEEE 1076.3 package numeric_std: without a conversion
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
  signal u : unsigned(3 downto 0);
  signal v : std_logic_vector(3 downto 0);
begin
  v <= u; --! type
end;
