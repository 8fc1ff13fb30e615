-- A serial line: frames of a start digit, eight digits from the right, even parity and a stop digit.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
package frames is
  constant div : positive := 8;
  type phase_t is (idle, start, data, parity, stop);
  type bytes is array (natural range <>) of std_logic_vector(7 downto 0);
end package;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity queue is
  generic (log : positive := 2; w : positive := 8);
  port (clk, put, take : in std_logic; d : in std_logic_vector(w - 1 downto 0);
        q : out std_logic_vector(w - 1 downto 0); empty, full : out std_logic);
end;

architecture rtl of queue is
  type cells_t is array (0 to 2 ** log - 1) of std_logic_vector(w - 1 downto 0);
  signal cells : cells_t := (others => (others => '0'));
  signal head, tail : unsigned(log downto 0) := (others => '0');
  signal is_empty, is_full : boolean;
begin
  is_empty <= head = tail;
  is_full <= head = (not tail(log)) & tail(log - 1 downto 0);
  empty <= '1' when is_empty else '0';
  full <= '1' when is_full else '0';
  q <= cells(to_integer(tail(log - 1 downto 0)));

  process (clk)
  begin
    if rising_edge(clk) then
      if put = '1' and not is_full then
        cells(to_integer(head(log - 1 downto 0))) <= d;
        head <= head + 1;
      end if;
      if take = '1' and not is_empty then
        tail <= tail + 1;
      end if;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.frames.all;
entity sender is
  port (clk, valid : in std_logic; d : in std_logic_vector(7 downto 0); ready, line_out : out std_logic);
end;

architecture rtl of sender is
  signal phase : phase_t := idle;
  signal left : std_logic_vector(7 downto 0) := (others => '0');
  signal even : std_logic := '0';
  signal count : natural range 0 to 7 := 0;
  signal ticks : natural range 0 to div - 1 := 0;
begin
  ready <= '1' when phase = idle else '0';
  with phase select
    line_out <= '0' when start, left(0) when data, even when parity, '1' when others;

  process (clk)
    variable last : boolean;
  begin
    if rising_edge(clk) then
      last := ticks = div - 1;
      if phase = idle or last then
        ticks <= 0;
      else
        ticks <= ticks + 1;
      end if;
      case phase is
        when idle =>
          if valid = '1' then
            phase <= start;
            left <= d;
            even <= xor d;
            count <= 0;
          end if;
        when start =>
          if last then
            phase <= data;
          end if;
        when data =>
          if last then
            left <= '0' & left(7 downto 1);
            if count = 7 then
              phase <= parity;
            else
              count <= count + 1;
            end if;
          end if;
        when parity =>
          if last then
            phase <= stop;
          end if;
        when stop =>
          if last then
            phase <= idle;
          end if;
      end case;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.frames.all;
entity receiver is
  port (clk, line_in : in std_logic; valid : out std_logic; found : out std_logic_vector(8 downto 0));
end;

architecture rtl of receiver is
  signal phase : phase_t := idle;
  signal seen : std_logic_vector(1 downto 0) := "11";
  signal byte : std_logic_vector(7 downto 0) := (others => '0');
  signal bad : std_logic := '0';
  signal count : natural range 0 to 7 := 0;
  signal ticks : natural range 0 to div - 1 := 0;
begin
  process (clk)
    variable middle, last : boolean;
  begin
    if rising_edge(clk) then
      middle := ticks = div / 2 - 1;
      last := ticks = div - 1;
      seen <= seen(0) & line_in;
      valid <= '0';
      if phase = idle or last then
        ticks <= 0;
      else
        ticks <= ticks + 1;
      end if;
      case phase is
        when idle =>
          if seen(1) = '0' then
            phase <= start;
          end if;
        when start =>
          count <= 0;
          bad <= '0';
          if middle and seen(1) = '1' then
            phase <= idle; -- it was too short
          elsif last then
            phase <= data;
          end if;
        when data =>
          if middle then
            byte <= seen(1) & byte(7 downto 1);
          end if;
          if last then
            if count = 7 then
              phase <= parity;
            else
              count <= count + 1;
            end if;
          end if;
        when parity =>
          if middle then
            bad <= seen(1) xor (xor byte);
          end if;
          if last then
            phase <= stop;
          end if;
        when stop =>
          if middle then
            phase <= idle;
            valid <= '1';
            found <= (bad or not seen(1)) & byte;
          end if;
      end case;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use std.textio.all;
use std.env.all;
entity bench is end;

architecture sim of bench is
  signal clk, put, noise : std_logic := '0';
  signal byte_in, following : std_logic_vector(7 downto 0) := (others => '0');
  signal is_idle, full, ready, wire, valid, none, full_there, give, take, heard : std_logic;
  signal found, came : std_logic_vector(8 downto 0);
  type numbers is array (0 to 255) of integer;
begin
  clk <= not clk after 5 ns;
  give <= ready and not is_idle;
  take <= not none;
  heard <= wire xor noise;
  to_send : entity work.queue port map (clk, put, give, byte_in, following, is_idle, full);
  s : entity work.sender port map (clk, give, following, ready, wire);
  r : entity work.receiver port map (clk, heard, valid, found);
  come : entity work.queue generic map (w => 9) port map (clk, valid, take, found, came, none, full_there);

  process
    file f : text open read_mode is "frames.txt";
    variable l, o : line;
    variable kind : string(1 to 4);
    variable value, total, noises, sent, got, cycle : integer := 0;
    variable frames, noisy : numbers;
  begin
    while not endfile(f) loop
      readline(f, l);
      read(l, kind);
      read(l, value);
      if kind = "byte" then
        frames(total) := value;
        total := total + 1;
      else
        noisy(noises) := value;
        noises := noises + 1;
      end if;
    end loop;
    loop
      wait until falling_edge(clk);
      put <= '0';
      if sent < total and full = '0' then
        put <= '1';
        byte_in <= std_logic_vector(to_unsigned(frames(sent), 8));
        sent := sent + 1;
      end if;
      cycle := cycle + 1;
      noise <= '0';
      for i in 0 to noises - 1 loop
        if noisy(i) = cycle then
          noise <= '1';
        end if;
      end loop;
      if none = '0' then
        write(o, integer'image(to_integer(unsigned(came(7 downto 0)))) & " ");
        write(o, std_logic'image(came(8))(2));
        writeline(output, o);
        got := got + 1;
      end if;
      if got = total or cycle > 20000 then
        finish;
      end if;
    end loop;
  end process;
end;
