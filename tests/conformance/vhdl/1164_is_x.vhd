-- IEEE 1164 package std_logic_1164: whether a value is none of 0, 1, L and H
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
begin
  process begin
    report boolean'image(is_x('Z')) & boolean'image(is_x('L')) & boolean'image(is_x(std_logic_vector'("0U1")));
    wait;
  end process;
end;
--> note: truefalsetrue
