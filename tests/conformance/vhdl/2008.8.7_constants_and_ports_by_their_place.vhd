-- IEEE 1076-2008 clause 8.7: constants, generics and ports may be named by their place too
library ieee;
use ieee.std_logic_1164.all;
entity sub is
  generic (width : integer := 4; name : string := "none");
  port (a : in std_logic; y : out std_logic);
end;
architecture x of sub is
  constant limit : integer := 2 * width;
  constant pattern : std_logic_vector(3 downto 0) := "1010";
begin
  y <= not a;
end;
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal s, q : std_logic := '0';
begin
  u : entity work.sub generic map (8, "lock") port map (s, q);
  process
    alias lim is << constant .t.u.limit : integer >>;
    alias inp is << signal u.a : std_logic >>;
  begin
    wait for 1 ns;
    report integer'image(lim) & " " & << constant u.name : string >>;
    report integer'image(<< constant .t.u.width : integer >>);
    report std_logic'image(<< constant u.pattern : std_logic_vector(3 downto 0) >>(1));
    report std_logic'image(inp) & std_logic'image(<< signal .t.u.y : std_logic >>);
    wait;
  end process;
end;
--> note: 16 lock
--> note: 8
--> note: '1'
--> note: '0''1'
