-- IEEE 1076.3 clause 4 (numeric_bit), 1076-2008 annex (numeric_std_unsigned), 1076.2 (math_real): numbers in other clothes
use work.all;
library ieee;
use ieee.numeric_bit.all;
use ieee.math_real.all;
entity other_numbers is end entity;
architecture test of other_numbers is
begin
  process
    variable a, b : unsigned(3 downto 0) := "1100";
    variable s : signed(3 downto 0) := "1110";
    variable x : real := 2.0;
  begin
    b := a + 5;
    report to_string(b) & " " & to_string(a * 2) & " " & integer'image(to_integer(s)) & " " & to_string(shift_right(s, 1)) & " " & boolean'image(a > b);
    report to_string(a and b) & " " & to_string(not a) & " " & to_string(resize(s, 6)) & " " & to_string(to_unsigned(9, 4));
    report integer'image(integer(x ** 10)) & " " & integer'image(integer(sqrt(x) * 1.0e6)) & " " & integer'image(integer(floor(-2.5))) & " " & integer'image(integer(exp(1.0) * 1.0e5));
    wait;
  end process;
end architecture;
--> note: 0001 00011000 -2 1111 true
--> note: 0000 0011 111110 1001
--> note: 1024 1414214 -3 271828
