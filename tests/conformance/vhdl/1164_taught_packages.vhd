-- IEEE 1164 and the taught packages that are no standard (clause none): std_logic_arith, std_logic_signed
library ieee;
use ieee.std_logic_1164.all;
use ieee.std_logic_arith.all;
use ieee.std_logic_signed.all;
entity taught_packages is end entity;
architecture test of taught_packages is
  function show (v : std_logic_vector) return string is
    variable s : string(1 to v'length);
    variable n : integer := 1;
  begin
    for i in v'range loop
      s(n to n) := std_logic'image(v(i))(2 to 2);
      n := n + 1;
    end loop;
    return s;
  end function;
begin
  process
    variable a, b : std_logic_vector(3 downto 0);
    variable u : unsigned(3 downto 0) := "1001";
  begin
    a := "1110"; b := "0011";
    report show(a + b) & " " & show(a - 1) & " " & show(a * b) & " " & integer'image(conv_integer(a)) & " " & boolean'image(a < b);
    report show(conv_std_logic_vector(-3, 4)) & " " & show(ext(a, 6)) & " " & show(sxt(a, 6)) & " " & show(u + 8) & " " & integer'image(conv_integer(u));
    wait;
  end process;
end architecture;
--> note: 0001 1101 11111010 -2 true
--> note: 1101 001110 111110 0001 9
