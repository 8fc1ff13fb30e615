library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;

entity draught_lamps is
  port (draught : in  std_logic_vector(3 downto 0);
        lamp    : out std_logic_vector(6 downto 0));
end entity;

architecture rtl of draught_lamps is
  -- so many lamps, lowest first
  function column (n : natural) return std_logic_vector is
    variable lit : std_logic_vector(6 downto 0) := (others => '0');
  begin
    for i in lit'low to lit'high loop
      if i < n then
        lit(i) := '1';
      end if;
    end loop;
    return lit;
  end function;
begin
  process (all)
    variable depth : natural range 0 to 15;
  begin
    depth := to_integer(unsigned(draught));
    case depth is
      when 0 to 7 => lamp <= column(depth);
      when 8      => lamp <= "1010101";
      when 9      => lamp <= "1000000";
      when others => lamp <= (others => '-');
    end case;
  end process;
end architecture;
