-- IEEE 1076-1993 clauses 9.6, 1.1.1 and 5.2: components, direct instances, generics, maps by name and position, open, expressions, slices, conversions
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity stage is
  generic (width : positive := 2; step : integer := 1; tag : string := "plain");
  port (
    a     : in  std_logic_vector(width - 1 downto 0);
    en    : in  std_logic := '1';
    y     : out std_logic_vector(width - 1 downto 0);
    spare : out std_logic := '0');
end entity stage;
architecture old of stage is
begin
  y <= (others => 'X');
end architecture old;
architecture rtl of stage is
begin
  y <= std_logic_vector(unsigned(a) + step) when en = '1' else a;
  assert tag /= "loud" report "loud one of width " & integer'image(width) severity note;
end architecture rtl;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity hierarchy is end entity;
architecture test of hierarchy is
  component stage is
    generic (width : positive := 2; step : integer := 1; tag : string := "plain");
    port (
      a     : in  std_logic_vector(width - 1 downto 0);
      en    : in  std_logic := '1';
      y     : out std_logic_vector(width - 1 downto 0);
      spare : out std_logic := '0');
  end component;
  signal x : std_logic_vector(3 downto 0) := "0011";
  signal p, q, r : std_logic_vector(3 downto 0);
  signal n : unsigned(3 downto 0);
  signal off : std_logic := '0';
begin
  u1 : stage generic map (width => 4, step => 2) port map (a => x, y => p);
  u2 : entity work.stage generic map (4, 3, "loud") port map (x, off, q, open);
  u3 : entity work.stage(rtl) generic map (width => 2) port map (a => x(3 downto 2), y => r(1 downto 0));
  u4 : entity work.stage(old) port map (a => x(1 downto 0), en => '0', y(1) => r(3), y(0) => r(2));
  u5 : stage generic map (4, 5) port map (a => std_logic_vector(n), y => open);
  u6 : entity work.stage generic map (4, 5) port map (a => x, unsigned(y) => n);
  process begin
    wait for 1 ns;
    report to_string(p) & " " & to_string(q) & " " & to_string(r) & " " & to_string(n);
    x <= "0111"; off <= '1';
    wait for 1 ns;
    report to_string(p) & " " & to_string(q) & " " & to_string(r) & " " & to_string(n);
    wait;
  end process;
end architecture;
--> note: loud one of width 4
--> note: 0101 0011 XX01 1000
--> note: 1001 1010 XX10 1100
