-- IEEE 1164 clause 4.3.4 and 1076-1993 clause 2.4: several drivers of one signal, the table of the nine values, a user's own function
library ieee;
use ieee.std_logic_1164.all;
entity resolution is end entity;
architecture test of resolution is
  type ints is array (natural range <>) of integer;
  function total (v : ints) return integer is
    variable sum : integer := 0;
  begin
    for i in v'range loop sum := sum + v(i); end loop;
    return sum;
  end function;
  subtype wired_sum is total integer;
  signal s : std_logic;
  signal bus_line : std_logic := 'H';
  signal w : wired_sum := 0;
  signal v : std_logic_vector(3 downto 0);
begin
  s <= 'Z', '1' after 10 ns;
  s <= 'Z', '0' after 20 ns;
  w <= 3;
  w <= 4, 6 after 10 ns;
  v(3 downto 2) <= "01";
  v(1) <= '1';
  v(0) <= 'L';
  v(0) <= 'W';
  process begin
    wait for 1 ns;
    report "s=" & std_logic'image(s) & " w=" & integer'image(w);
    report to_string(v);
    wait for 10 ns;
    report "s=" & std_logic'image(s) & " w=" & integer'image(w);
    wait for 10 ns;
    report "s=" & std_logic'image(s);
    assert resolved("ZH") = 'H' and resolved("LH") = 'W' and resolved("0H") = '0' and resolved("-1") = 'X' and resolved("U0") = 'U';
    report "done";
    wait;
  end process;
end architecture;
--> note: s='Z' w=7
--> note: 011W
--> note: s='1' w=9
--> note: s='X'
--> note: done
