-- IEEE 1076-1993 clause 12.3 and 12.6.4: what is reported while constants, generics and start values are worked out comes first
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity tb is generic (g : unsigned(3 downto 0) := to_unsigned(20, 4)); end entity;
architecture a of tb is
  function told(n : integer) return integer is
  begin
    report "worked out " & integer'image(n);
    assert n > 0 report "n is small" severity warning;
    return n;
  end function;
  constant c : unsigned(7 downto 0) := to_unsigned(300, 8);
  constant k : integer := to_integer(unsigned'("0X"));
  constant n : integer := told(-1);
  signal s : integer := told(2);
  type numbers is array (0 to told(3)) of integer;
  signal r : numbers;
begin
  process
    variable v : integer := told(4);
  begin
    report integer'image(k) & integer'image(n) & integer'image(s) & integer'image(r'length) & " " & to_string(c) & to_string(g);
    wait;
  end process;
end architecture;
--> warning: NUMERIC_STD.TO_UNSIGNED: vector truncated
--> warning: NUMERIC_STD.TO_UNSIGNED: vector truncated
--> warning: NUMERIC_STD.TO_INTEGER: metavalue detected, returning 0
--> note: worked out -1
--> warning: n is small
--> note: worked out 2
--> note: worked out 3
--> note: worked out 4
--> note: 0-124 001011000100
