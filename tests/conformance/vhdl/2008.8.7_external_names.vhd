-- IEEE 1076-2008 clause 8.7: a signal may be named by its place in the hierarchy
library ieee;
use ieee.std_logic_1164.all;
entity sub is
  port (a : in std_logic);
end;
architecture x of sub is
  signal inner : std_logic := '0';
begin
  inner <= not a;
end;
library ieee;
use ieee.std_logic_1164.all;
entity t is end;
architecture a of t is
  signal s : std_logic := '0';
begin
  u : entity work.sub port map (s);
  process
    alias spy is << signal .t.u.inner : std_logic >>;
  begin
    wait for 1 ns;
    report std_logic'image(spy) & std_logic'image(<< signal u.inner : std_logic >>);
    s <= '1';
    wait for 1 ns;
    report std_logic'image(spy);
    wait;
  end process;
end;
--> note: '1''1'
--> note: '0'
