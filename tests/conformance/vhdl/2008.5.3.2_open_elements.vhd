-- IEEE 1076-2008 clauses 5.3.2 and 5.7: arrays whose elements have their range later, text with digits and units
library work, ieee;
use ieee.std_logic_1164.ALL;
use IEEE.Numeric_Std.All;
entity open_elements is end;
architecture t of open_elements is
  type t_arr is array (natural range <>) of std_logic_vector;
  signal m : t_arr(0 to 3)(7 downto 0) := (others => (others => '0'));
  type fixed is array (0 to 1) of t_arr(0 to 1)(1 downto 0);
  constant c : t_arr(0 to 1)(3 downto 0) := ("0001", x"A");
begin
  process begin
    m(2) <= x"5A"; m(1)(3 downto 0) <= "1111"; m(0)(7) <= '1';
    wait for 1 ns;
    for i in m'range loop report to_string(m(i)); end loop;
    report to_string(c(1)) & " " & integer'image(m(0)'length) & " " & to_string(1.5 us, ns);
    wait;
  end process;
end;
--> note: 10000000
--> note: 00001111
--> note: 01011010
--> note: 00000000
--> note: 1010 8 1500 ns
