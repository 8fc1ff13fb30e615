library ieee;
use ieee.std_logic_1164.all;

entity beacon_sequencer is
  port (clk, rst, fog : in std_logic; lamp, horn : out std_logic);
end entity;

architecture fsm of beacon_sequencer is
  type phase_t is (dark, flash1, gap, flash2, pause, sound);
  signal phase : phase_t;
begin
  process (clk, rst)
  begin
    if rst = '1' then
      phase <= dark;
    elsif rising_edge(clk) then
        case phase is
          when dark   => phase <= flash1;
          when flash1 => phase <= gap;
          when gap    => phase <= flash2;
          when flash2 => phase <= pause;
          when pause  => if fog = '1' then phase <= sound; else phase <= dark; end if;
          when sound  => phase <= dark;
        end case;
    end if;
  end process;
  lamp <= '1' when phase = flash1 or phase = flash2 else '0';
  horn <= '1' when phase = sound else '0';
end architecture;
