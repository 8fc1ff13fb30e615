-- IEEE 1076.3 package numeric_std: for anything
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process begin
    report boolean'image(std_match(std_logic_vector'("1010"), "1--0")) & boolean'image(std_match(std_logic_vector'("1H10"), "1110")) & boolean'image(std_match(std_logic_vector'("1X10"), "1110"));
    wait;
  end process;
end;
--> note: truetruefalse
