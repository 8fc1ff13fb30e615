library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;

entity ballast_trim is
  port (
    op                    : in  std_logic_vector(1 downto 0);
    fore, aft             : in  std_logic_vector(7 downto 0);
    trim                  : out std_logic_vector(7 downto 0);
    over, level, bow_down : out std_logic);
end entity;

architecture numbers of ballast_trim is
begin
  process (all)
    variable f, a, r : integer range -255 to 510;
  begin
    f := to_integer(unsigned(fore));
    a := to_integer(unsigned(aft));
    over <= '0';
    case op is
      when "00" =>
        r := f + a;
        if r > 255 then over <= '1'; end if;
      when "01" =>
        r := f - a;
        if r < 0 then over <= '1'; end if;
      when "10" =>
        r := a - f;
        if r < 0 then over <= '1'; end if;
      when others =>
        r := (f + a) / 2;
    end case;
    trim <= std_logic_vector(to_unsigned(r mod 256, 8));
    level <= '0';
    if r mod 256 = 0 then
      level <= '1';
    end if;
  end process;

  bow_down <= '1' when to_integer(unsigned(fore)) > to_integer(unsigned(aft)) else '0';
end architecture;
