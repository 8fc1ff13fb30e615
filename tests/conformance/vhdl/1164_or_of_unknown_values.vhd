-- IEEE 1164 package std_logic_1164: 1 decides
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
begin
  process
    variable x : std_logic := 'Z';
  begin
    report std_logic'image(x or '1') & std_logic'image(x or '0') & std_logic'image(x xor '1');
    wait;
  end process;
end;
--> note: '1''X''X'
