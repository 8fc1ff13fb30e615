-- IEEE 1076-2008 clause 16.5: std.env ends a run
use std.env.all;
entity env_stop is end entity;
architecture test of env_stop is
  signal clk : bit;
begin
  clk <= not clk after 5 ns;
  process begin
    wait for 42 ns;
    report "stopping " & bit'image(clk);
    stop;
    report "never";
  end process;
end architecture;
--> note: stopping '0'
