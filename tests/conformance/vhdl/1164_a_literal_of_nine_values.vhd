-- IEEE 1164 package std_logic_1164: others are none of the type
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal s : std_logic := '2'; --! type
begin
end;
