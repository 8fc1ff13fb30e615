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

architecture behaviour of ballast_trim is
  signal wide : unsigned(8 downto 0);
begin
  process (op, fore)
  begin
    case op is
      when "00"   => wide <= resize(unsigned(fore), 9) + unsigned(aft);
      when "01"   => wide <= resize(unsigned(fore), 9) - unsigned(aft);
      when "10"   => wide <= resize(unsigned(aft), 9) - unsigned(fore);
      when others => wide <= shift_right(resize(unsigned(fore), 9) + unsigned(aft), 1);
    end case;
  end process;

  trim     <= std_logic_vector(wide(7 downto 0));
  over     <= wide(8);
  level    <= '1' when wide(7 downto 0) = 0 else '0';
  bow_down <= '1' when unsigned(fore) > unsigned(aft) else '0';
end architecture;
