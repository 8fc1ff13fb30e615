library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;

entity gate is
  port (
    clk, rst_n, open_req, full : in std_logic;
    phase : out std_logic_vector(1 downto 0);
    lift, lamp : out std_logic);
end;

architecture rtl of gate is
  type state_t is (shut, filling, lifting, raised);
  signal state : state_t;
begin
  process (clk, rst_n)
  begin
    if rst_n = '0' then
      state <= shut;
    elsif rising_edge(clk) then
      case state is
        when shut =>
          if open_req = '1' then
            state <= filling;
          end if;
        when filling =>
          if full = '1' then
            state <= lifting;
          end if;
        when lifting =>
          state <= raised;
        when raised =>
          if open_req = '0' then
            state <= shut;
          end if;
      end case;
    end if;
  end process;
  with state select phase <= "00" when shut, "01" when filling, "10" when lifting, "11" when raised;
  lift <= '1' when state = lifting else '0';
  lamp <= '1' when state = filling or state = lifting else '0';
end;
