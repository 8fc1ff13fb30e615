-- IEEE 1076-1993 clause 5.3: a disconnection specification says how long a guarded signal holds on; 9.5: guarded assignments; 12.6.2: GUARD within the cycle
library ieee; use ieee.std_logic_1164.all;
entity tb is end entity;
architecture a of tb is
  signal g : boolean := true; signal late, at_once, other : std_logic bus; signal kept : std_logic register; signal en, d, q : std_logic := '0';
  disconnect late : std_logic after 2 ns;
  disconnect kept : std_logic after 1 ns;
  disconnect others : std_logic after 3 ns;
begin
  b : block (g) begin late <= guarded '1'; other <= guarded '1'; kept <= guarded '1'; end block;
  c : block (en = '1') begin q <= guarded d; end block;
  process begin
    wait for 1 ns; g <= false; wait for 1 ns; report to_string(late) & to_string(other) & to_string(kept);
    wait for 1500 ps; report to_string(late) & to_string(other) & to_string(kept); wait for 1 ns; report to_string(late) & to_string(other) & to_string(kept);
    g <= true; wait for 1 ns; report to_string(late) & to_string(other) & to_string(kept);
    g <= false; wait for 1 ns; g <= true; wait for 5 ns; report to_string(late) & to_string(other);
    en <= '1'; d <= '0'; wait for 1 ns; en <= '0'; d <= '1'; wait for 1 ns; report to_string(q);
    wait;
  end process;
end architecture;
--> note: 111
--> note: Z11
--> note: ZZ1
--> note: 111
--> note: 11
--> note: 0
