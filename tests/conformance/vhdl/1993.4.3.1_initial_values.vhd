-- IEEE 1076-1993 clause 4.3.1: the leftmost value where none is given
library ieee;
use ieee.std_logic_1164.all;
entity initial_values is end entity;
architecture test of initial_values is
  type colour is (red, green, blue);
  type rec is record
    n : integer range 3 to 9;
    c : colour;
    v : std_logic_vector(2 downto 0);
  end record;
  signal r : rec;
  signal n : natural;
  signal i : integer;
  signal b : bit;
  signal t : time;
  signal l : std_logic;
  signal d : integer range 9 downto 2;
begin
  process
    variable f : boolean;
    variable ch : character;
  begin
    report integer'image(r.n) & " " & colour'image(r.c) & " " & to_string(r.v);
    report integer'image(n) & " " & integer'image(i) & " " & bit'image(b) & " " & std_logic'image(l) & " " & boolean'image(f);
    report integer'image(d) & " " & integer'image(character'pos(ch));
    wait;
  end process;
end architecture;
--> note: 3 red UUU
--> note: 0 -2147483648 '0' 'U' false
--> note: 9 0
