-- IEEE 1164 package std_logic_1164: strong beats weak, and two that contradict give X
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal p, q, r : std_logic;
begin
  p <= '1';
  p <= 'L';
  q <= '1';
  q <= '0';
  r <= 'H';
  r <= 'L';
  process begin
    wait for 1 ns;
    report std_logic'image(p) & std_logic'image(q) & std_logic'image(r);
    wait;
  end process;
end;
--> note: '1''X''W'
