library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;

entity winch is
  port (
    clk, rst, load, up : in std_logic;
    turns : in std_logic_vector(2 downto 0);
    remaining : out std_logic_vector(2 downto 0);
    done : out std_logic);
end;

architecture rtl of winch is
  signal n : unsigned(2 downto 0);
begin
  process (clk)
  begin
    if falling_edge(clk) then
      if rst = '1' then
        n <= "000";
      elsif load = '1' then
        n <= unsigned(turns);
      elsif up = '1' then
        if n = 6 then
          n <= "000";
        else
          n <= n + 1;
        end if;
      elsif n /= 0 then
        n <= n - 1;
      end if;
    end if;
  end process;
  remaining <= std_logic_vector(n);
  done <= '1' when n = 0 else '0';
end;
