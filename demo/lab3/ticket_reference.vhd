library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;

entity ticket_counter is
  port (clk, clr_n, take : in std_logic; ticket : out std_logic_vector(3 downto 0); last : out std_logic);
end entity;

architecture reference of ticket_counter is
  signal count : unsigned(3 downto 0);
begin
  process (clk, clr_n)
  begin
    if clr_n = '0' then
      count <= (others => '0');
    elsif falling_edge(clk) and take = '1' then
      count <= (others => '0') when count = 11 else count + 1;
    end if;
  end process;
  ticket <= std_logic_vector(count);
  last <= '1' when count = 11 else '0';
end architecture;
