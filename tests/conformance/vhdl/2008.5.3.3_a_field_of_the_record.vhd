-- IEEE 1076-2008 clause 5.3.3: a constraint of a record names a field that it has
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  type item is record
    data : std_logic_vector;
  end record;
  signal s : item(word(3 downto 0)); --! range
begin
end;
