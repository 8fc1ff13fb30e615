-- IEEE 1076.3 package numeric_std: is an error of the package
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity t is end;
architecture a of t is
begin
  process
    variable u : unsigned(1 downto 0) := "10";
    variable z : unsigned(1 downto 0) := "00";
  begin
    u := u / z;
    wait;
  end process;
end;
--> error: NUMERIC_STD.DIVMOD: DIV, MOD, or REM by zero
