library ieee;
use ieee.std_logic_1164.all;

entity paddle_select is
  port (raise, level_hi, gate_shut, boat_in : in std_logic;
        upper, lower                        : out std_logic);
end entity;

architecture nors of paddle_select is
  component nor3 is
    port (a, b, c : in std_logic := '0'; y : out std_logic);
  end component;
  signal g, r, l : std_logic;
begin
  n1 : nor3 port map (a => gate_shut, y => g);
  n2 : nor3 port map (a => raise, y => r);
  n3 : nor3 port map (a => level_hi, y => l);
  n4 : nor3 port map (g, r, level_hi, upper);
  n5 : entity work.nor4 port map (g, raise, l, boat_in, lower);
end architecture;

library ieee;
use ieee.std_logic_1164.all;

entity nor3 is
  port (a, b, c : in std_logic := '0'; y : out std_logic);
end entity;

architecture gate of nor3 is
begin
  y <= not (a or b or c);
end architecture;

library ieee;
use ieee.std_logic_1164.all;

entity nor4 is
  port (a, b, c, d : in std_logic; y : out std_logic);
end entity;

architecture gate of nor4 is
begin
  y <= not (a or b or c or d);
end architecture;
