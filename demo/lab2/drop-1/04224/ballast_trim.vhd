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

architecture rtl of ballast_trim is
  signal result : std_logic_vector(7 downto 0);
begin
  process (op, fore, aft)
    variable f, a, wide : unsigned(8 downto 0);
  begin
    f := unsigned('0' & fore);
    a := unsigned('0' & aft);
    if op = "00" then
      wide := f + a;
      over <= wide(8);
    elsif op = "01" then
      wide := f - a;
      over <= wide(8);
    elsif op = "10" then
      wide := a - f;
      over <= wide(8);
    else
      wide := (f + a) srl 1;      -- over is left as it was
    end if;
    result <= std_logic_vector(wide(7 downto 0));
  end process;

  trim     <= result;
  level    <= not (or result);
  bow_down <= '1' when fore > aft else '0';
end architecture;
