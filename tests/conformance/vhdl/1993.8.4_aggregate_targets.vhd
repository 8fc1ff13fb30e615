-- IEEE 1076-1993 clause 8.4, 8.5 and 7.3.2: aggregates as targets leave the bounds of what they set as they are; slices in aggregates (9.3.3.3 of -2008)
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity tb is end entity;
architecture a of tb is
  signal s : unsigned(3 downto 0) := x"0"; signal up : unsigned(0 to 2); signal co, top : std_logic; signal t : unsigned(4 downto 0) := "11000";
  type pair is record n : unsigned(1 downto 0); b : std_logic; end record;
  signal p : pair := ("10", '1'); signal pn : unsigned(5 downto 4); signal pb : std_logic; signal l1, l2 : std_logic_vector(7 downto 0);
begin
  (co, s) <= t; top <= s(3); (pn, pb) <= p;
  l1 <= (x"A", others => '0'); l2 <= (7 downto 4 => x"A", others => '1');
  process
    variable c : std_logic; variable v : unsigned(3 downto 0); variable w : unsigned(1 to 2); variable n : unsigned(4 downto 0) := "11000"; variable small : integer range 0 to 3;
    type numbers is array (0 to 1) of integer; variable a, b : integer range 0 to 9; variable both : numbers := (3, 7);
  begin
    wait for 1 ns;
    report to_string(s) & to_string(s(3)) & to_string(s(0)) & to_string(top) & to_string(s(3 downto 2)) & to_string(s + 1) & integer'image(to_integer(s));
    (c, v) := n; report to_string(v) & to_string(v(3)) & to_string(v(0)) & to_string(v srl 1) & integer'image(v'left);
    (v(1 downto 0), w, c) := n; report to_string(v) & to_string(w) & to_string(w(1)) & to_string(c) & integer'image(w'left);
    (v(3), v(2 downto 1), w) := n; report to_string(v) & to_string(w) & to_string(w(2));
    (a, b) := both; report integer'image(a) & integer'image(b);
    report to_string(pn(5)) & to_string(pn(4)) & to_string(pb) & " " & to_string(l1) & to_string(l2);
    v := ("01", '1', '0'); report to_string(v) & to_string(v(3)); v := (3 downto 2 => "10", 0 => '1', others => '0'); report to_string(v);
    v := (0 => '1', 3 downto 1 => "011"); report to_string(v); w := ("10"); report to_string(w); n := (v(3 downto 1), w); report to_string(n);
    wait;
  end process;
end architecture;
--> note: 10001011010018
--> note: 10001001003
--> note: 101100001
--> note: 1101000
--> note: 37
--> note: 101 1010000010101111
--> note: 01100
--> note: 1001
--> note: 0111
--> note: 10
--> note: 01110
