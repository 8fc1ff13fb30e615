-- IEEE 1164 package std_logic_1164: without numeric_std
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal p, q : std_logic_vector(3 downto 0);
begin
  q <= p + 1; --! operator
end;
