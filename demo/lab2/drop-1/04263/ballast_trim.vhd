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
  subtype word is unsigned(8 downto 0);

  function wide (code : std_logic_vector(1 downto 0); f, a : word) return word is
  begin
    case code is
      when "00"   => return f + a;
      when "01"   => return f - a;
      when "10"   => return a - f;
      when others => return shift_right(f + a, 1);
    end case;
  end function;

  signal w : word;
begin
  w        <= wide(op, word(resize(unsigned(fore), 9)), word(resize(unsigned(aft), 9)));
  trim     <= std_logic_vector(w(7 downto 0));
  over     <= w(8) and not op(1);   -- forgets the third operation
  level    <= '1' when w(7 downto 0) = "00000000" else '0';
  bow_down <= '1' when unsigned(fore) > unsigned(aft) else '0';
end architecture;
