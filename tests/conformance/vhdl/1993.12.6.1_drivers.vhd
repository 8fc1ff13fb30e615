-- IEEE 1076-1993 clause 12.6.1: one driver per process and signal; parts of a signal driven apart; parameters that drive
library ieee;
use ieee.std_logic_1164.all;
entity drivers is end entity;
architecture test of drivers is
  signal v : std_logic_vector(3 downto 0) := "0000";
  type rec is record a, b : integer; end record;
  signal r : rec := (1, 2);
  signal s : std_logic;
  procedure set (signal x : out std_logic_vector; value : std_logic) is
  begin
    x <= (x'range => value);
  end procedure;
begin
  process begin
    v(0) <= '1';
    wait for 2 ns;
    v(0) <= '0';
    wait;
  end process;
  process begin
    wait for 1 ns;
    set(v(3 downto 2), '1');
    wait;
  end process;
  r.a <= 10 after 1 ns;
  r.b <= 20 after 2 ns;
  s <= '0';
  s <= 'H';
  process (v, r, s) begin
    report to_string(v) & " " & integer'image(r.a) & " " & integer'image(r.b) & " " & std_logic'image(s);
  end process;
end architecture;
--> note: 0000 1 2 'U'
--> note: 0001 1 2 '0'
--> note: 0001 10 2 '0'
--> note: 1101 10 2 '0'
--> note: 1101 10 20 '0'
--> note: 1100 10 20 '0'
