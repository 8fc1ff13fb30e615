-- Packets across two clocks: bytes are packed in pairs, kept until their packet is whole, dropped where it is taken back or
-- does not fit; pointers cross as Gray codes, settings and counts as messages that are acknowledged. The last word of a
-- packet has a sum over it, by which the reader knows whether it is as it was.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
package crossing_pkg is
  constant log : positive := 3;
  subtype pointer_t is unsigned(log downto 0);
  subtype byte is std_logic_vector(7 downto 0);
  type pair_t is record
    is_last, is_half : std_logic;
    sum, first, second : byte;
  end record;
  type losses_t is record
    taken_back, too_long : natural;
  end record;
  constant no_pair : pair_t := ('0', '0', x"00", x"00", x"00");

  function to_gray (n : unsigned) return unsigned;
  function from_gray (gray : unsigned) return unsigned;
  function summed (sum, value : byte) return byte;
  function digit (b : boolean) return std_logic;
end package;

package body crossing_pkg is
  function to_gray (n : unsigned) return unsigned is
  begin
    return n xor shift_right(n, 1);
  end;

  function from_gray (gray : unsigned) return unsigned is
    variable n : unsigned(gray'range) := gray;
  begin
    for i in gray'high - 1 downto gray'low loop
      n(i) := gray(i) xor n(i + 1);
    end loop;
    return n;
  end;

  -- x**8 + x**2 + x + 1, digit by digit from the left.
  function summed (sum, value : byte) return byte is
    variable found : byte := sum xor value;
  begin
    for i in 1 to 8 loop
      found := (found sll 1) xor (x"07" and (7 downto 0 => found(7)));
    end loop;
    return found;
  end;

  function digit (b : boolean) return std_logic is
  begin
    if b then
      return '1';
    end if;
    return '0';
  end;
end package body;

-- A reset begins at once and ends with the clock.
library ieee;
use ieee.std_logic_1164.all;
entity reset_release is
  port (clk, rst_n : in std_logic; released : out std_logic);
end;

architecture rtl of reset_release is
  signal stages : std_logic_vector(1 downto 0) := "00";
begin
  released <= stages(1);

  process (clk, rst_n)
  begin
    if rst_n = '0' then
      stages <= "00";
    elsif rising_edge(clk) then
      stages <= stages(0) & '1';
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity crossing is
  generic (w : positive := 4);
  port (clk, rst_n : in std_logic; d : in unsigned(w - 1 downto 0); q : out unsigned(w - 1 downto 0) := (others => '0'));
end;

architecture rtl of crossing is
  signal first : unsigned(w - 1 downto 0) := (others => '0');
begin
  process (clk, rst_n)
  begin
    if rst_n = '0' then
      first <= (others => '0');
      q <= (others => '0');
    elsif rising_edge(clk) then
      first <= d;
      q <= first;
    end if;
  end process;
end;

-- A message is held until the other side has said that it took it: two turns of one wire each way.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity messenger is
  generic (w : positive := 8);
  port (from_clk, from_rst_n, send : in std_logic; message : in unsigned(w - 1 downto 0); is_free : out boolean;
        to_clk, to_rst_n : in std_logic; came : out std_logic := '0';
        received : out unsigned(w - 1 downto 0) := (others => '0'));
end;

architecture rtl of messenger is
  signal held : unsigned(w - 1 downto 0) := (others => '0');
  signal asked, asked_seen, asked_before, answered_seen : unsigned(0 downto 0) := "0";
  signal free : boolean;
begin
  forth : entity work.crossing generic map (1) port map (to_clk, to_rst_n, asked, asked_seen);
  back : entity work.crossing generic map (1) port map (from_clk, from_rst_n, asked_before, answered_seen);
  free <= asked = answered_seen;
  is_free <= free;

  process (from_clk, from_rst_n)
  begin
    if from_rst_n = '0' then
      asked <= "0";
      held <= (others => '0');
    elsif rising_edge(from_clk) then
      if send = '1' and free then
        asked <= not asked;
        held <= message;
      end if;
    end if;
  end process;

  process (to_clk, to_rst_n)
  begin
    if to_rst_n = '0' then
      asked_before <= "0";
      came <= '0';
      received <= (others => '0');
    elsif rising_edge(to_clk) then
      asked_before <= asked_seen;
      came <= '0';
      if asked_seen /= asked_before then
        came <= '1';
        received <= held;
      end if;
    end if;
  end process;
end;

-- Two bytes become one word; the last one of an odd packet stands alone.
library ieee;
use ieee.std_logic_1164.all;
use work.crossing_pkg.all;
entity packer is
  port (clk, rst_n, back : in std_logic; d : in byte; d_valid, d_last : in std_logic; d_ready : buffer std_logic;
        q : out pair_t; q_valid, q_last : out std_logic; q_ready : in std_logic);
end;

architecture rtl of packer is
  signal has_first : boolean := false;
  signal first, sum : byte := x"00";
  signal is_whole : boolean;
begin
  is_whole <= has_first or d_last = '1';
  d_ready <= q_ready or not digit(is_whole);
  q_valid <= d_valid and digit(is_whole);
  q_last <= d_last;
  q <= (d_last, '0', summed(sum, d), first, d) when has_first else (d_last, '1', summed(sum, d), d, x"00");

  process (clk, rst_n)
  begin
    if rst_n = '0' then
      has_first <= false;
      sum <= x"00";
    elsif rising_edge(clk) then
      if back = '1' then
        has_first <= false;
        sum <= x"00";
      elsif d_valid = '1' and d_ready = '1' then
        sum <= x"00" when d_last = '1' else summed(sum, d);
        has_first <= not has_first and d_last = '0';
        first <= d;
      end if;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use work.crossing_pkg.all;
entity unpacker is
  port (clk, rst_n : in std_logic; d : in pair_t; d_valid : in std_logic; d_ready : out std_logic;
        q : buffer byte := x"00"; q_valid, q_last, is_bad : out std_logic; q_ready : in std_logic);
end;

architecture rtl of unpacker is
  signal is_second : boolean := false;
  signal sum : byte := x"00";
  signal ends : std_logic;
begin
  ends <= digit(is_second) or d.is_half;
  d_ready <= q_ready and ends;
  q_valid <= d_valid;
  q_last <= d.is_last and ends;
  q <= d.second when is_second else d.first;
  is_bad <= d_valid and d.is_last and ends and digit(summed(sum, q) /= d.sum);

  process (clk, rst_n)
  begin
    if rst_n = '0' then
      is_second <= false;
      sum <= x"00";
    elsif rising_edge(clk) and d_valid = '1' and q_ready = '1' then
      sum <= x"00" when d.is_last = '1' and ends = '1' else summed(sum, q);
      is_second <= ends = '0';
    end if;
  end process;
end;

-- What was put is seen by the reader when its packet is whole. `back` takes back what of a packet is there.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.crossing_pkg.all;
entity packet_fifo is
  port (d_clk, d_rst_n : in std_logic; d : in pair_t; d_valid, d_last : in std_logic; d_ready : out std_logic;
        q_clk, q_rst_n : in std_logic; q : out pair_t := no_pair; q_valid : out std_logic; q_ready, back : in std_logic;
        room, waiting : buffer pointer_t := (others => '0'); losses : out losses_t);
end;

architecture rtl of packet_fifo is
  constant n : positive := 2 ** log;
  constant zero : pointer_t := (others => '0');
  type cells_t is array (0 to n - 1) of pair_t;
  signal cells : cells_t := (others => no_pair);
  signal head, whole, whole_gray, tail, tail_gray, whole_seen, tail_seen, gone : pointer_t := zero;
  signal lost : losses_t := (0, 0);
  signal skips, is_full, is_there : boolean := false;
begin
  to_reader : entity work.crossing generic map (log + 1) port map (q_clk, q_rst_n, whole_gray, whole_seen);
  to_writer : entity work.crossing generic map (log + 1) port map (d_clk, d_rst_n, tail_gray, tail_seen);

  gone <= from_gray(tail_seen);
  room <= to_unsigned(n, log + 1) - (head - gone);
  is_full <= room = 0;
  d_ready <= digit(not is_full or skips);
  losses <= lost;

  writing : process (d_clk, d_rst_n)
  begin
    if d_rst_n = '0' then
      head <= zero;
      whole <= zero;
      whole_gray <= zero;
      skips <= false;
      lost <= (0, 0);
    elsif rising_edge(d_clk) then
      if back = '1' then
        head <= whole;
        skips <= false;
        lost.taken_back <= lost.taken_back + 1;
      elsif skips then
        if d_valid = '1' and d_last = '1' then
          skips <= false;
        end if;
      elsif is_full and whole = gone and d_valid = '1' then
        head <= whole;
        skips <= true;
        lost.too_long <= lost.too_long + 1;
      elsif d_valid = '1' and not is_full then
        cells(to_integer(head(log - 1 downto 0))) <= d;
        head <= head + 1;
        if d_last = '1' then
          whole <= head + 1;
          whole_gray <= to_gray(head + 1);
        end if;
      end if;
    end if;
  end process;

  waiting <= from_gray(whole_seen) - tail;
  is_there <= waiting /= 0;
  q_valid <= digit(is_there);
  q <= cells(to_integer(tail(log - 1 downto 0)));

  reading : process (q_clk, q_rst_n)
  begin
    if q_rst_n = '0' then
      tail <= zero;
      tail_gray <= zero;
    elsif rising_edge(q_clk) and is_there and q_ready = '1' then
      tail <= tail + 1;
      tail_gray <= to_gray(tail + 1);
    end if;
  end process;
end;

-- The whole: bytes in on one side, out on the other, a threshold sent to the writer and the losses asked of it.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.crossing_pkg.all;
entity link is
  port (d_clk, d_rst_n : in std_logic; d : in byte; d_valid, d_last : in std_logic; d_ready : out std_logic;
        q_clk, q_rst_n : in std_logic; q : out byte; q_valid, q_last : out std_logic; q_ready : in std_logic;
        back : in std_logic; is_nearly_full : out std_logic; room, waiting : buffer pointer_t := (others => '0');
        set, ask : in std_logic; threshold : in pointer_t; answered, is_bad : out std_logic; answer : out losses_t);
end;

architecture rtl of link is
  signal pair, stored : pair_t;
  signal pair_valid, pair_last, pair_ready, stored_valid, stored_ready, is_asked : std_logic;
  signal least : pointer_t := (others => '0');
  signal losses : losses_t;
  signal counts, told : unsigned(15 downto 0) := (others => '0');
  signal one, unused : unsigned(0 downto 0) := "1";
begin
  p : entity work.packer
    port map (d_clk, d_rst_n, back, d, d_valid, d_last, d_ready, pair, pair_valid, pair_last, pair_ready);
  f : entity work.packet_fifo
    port map (d_clk => d_clk, d_rst_n => d_rst_n, d => pair, d_valid => pair_valid, d_last => pair_last,
              d_ready => pair_ready, q_clk => q_clk, q_rst_n => q_rst_n, q => stored, q_valid => stored_valid,
              q_ready => stored_ready, back => back, room => room, waiting => waiting, losses => losses);
  u : entity work.unpacker port map (q_clk, q_rst_n, stored, stored_valid, stored_ready, q, q_valid, q_last, is_bad, q_ready);

  counts <= to_unsigned(losses.taken_back, 8) & to_unsigned(losses.too_long, 8);
  settings : entity work.messenger generic map (log + 1)
    port map (from_clk => q_clk, from_rst_n => q_rst_n, send => set, message => threshold, is_free => open,
              to_clk => d_clk, to_rst_n => d_rst_n, came => open, received => least);
  question : entity work.messenger generic map (1)
    port map (from_clk => q_clk, from_rst_n => q_rst_n, send => ask, message => one, is_free => open,
              to_clk => d_clk, to_rst_n => d_rst_n, came => is_asked, received => unused);
  reply : entity work.messenger generic map (16)
    port map (from_clk => d_clk, from_rst_n => d_rst_n, send => is_asked, message => counts, is_free => open,
              to_clk => q_clk, to_rst_n => q_rst_n, came => answered, received => told);
  answer <= (to_integer(told(15 downto 8)), to_integer(told(7 downto 0)));
  is_nearly_full <= digit(room <= least);
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.crossing_pkg.all;
use std.textio.all;
entity bench is end;

architecture sim of bench is
  signal wclk, rclk, rst_n, back, set, ask, d_valid, d_last, q_ready : std_logic := '0';
  signal w_rst_n, r_rst_n, d_ready, q_valid, q_last, is_nearly_full, answered, is_bad : std_logic;
  signal d, q : byte := x"00";
  signal room, waiting, threshold : pointer_t := (others => '0');
  signal answer : losses_t;
  signal fast, slow, wait_in, wait_out, least : natural := 0;
  signal is_set, finished, done : boolean := false;
  shared variable lowest : natural := 8;
  shared variable highest : natural := 0;

  procedure told (what : string) is
    variable l : line;
  begin
    write(l, what);
    writeline(output, l);
  end;
begin
  w : entity work.reset_release port map (wclk, rst_n, w_rst_n);
  r : entity work.reset_release port map (rclk, rst_n, r_rst_n);
  dut : entity work.link
    port map (wclk, w_rst_n, d, d_valid, d_last, d_ready, rclk, r_rst_n, q, q_valid, q_last, q_ready, back,
              is_nearly_full, room, waiting, set, ask, threshold, answered, is_bad, answer);

  settings : process
    file f : text open read_mode is "clocks.txt";
    variable l : line;
    variable a, b, x, y, t : natural;
  begin
    readline(f, l);
    read(l, a);
    read(l, b);
    read(l, x);
    read(l, y);
    read(l, t);
    fast <= a;
    slow <= b;
    wait_in <= x;
    wait_out <= y;
    least <= t;
    wait for 10 ns;
    rst_n <= '1';
    is_set <= true;
    wait;
  end process;

  process
  begin
    wait until is_set;
    while not done loop
      wait for fast * 500 ps;
      wclk <= not wclk;
    end loop;
    wait;
  end process;

  process
  begin
    wait until is_set;
    while not done loop
      wait for slow * 500 ps;
      rclk <= not rclk;
    end loop;
    wait;
  end process;

  watching : process (wclk, rclk)
  begin
    if falling_edge(wclk) and w_rst_n = '1' then
      lowest := minimum(lowest, to_integer(room));
      if to_integer(room) + to_integer(waiting) > 8 then
        told("more than there are places");
      end if;
    end if;
    if rising_edge(rclk) and r_rst_n = '1' then
      highest := maximum(highest, to_integer(waiting));
    end if;
  end process;

  writing : process
    file f : text open read_mode is "packets.txt";
    variable l : line;
    variable length, back_after, number : integer := 0;

    procedure give (value : natural; last : boolean) is
    begin
      for k in 1 to value mod (wait_in + 1) loop
        wait until falling_edge(wclk);
      end loop;
      d <= byte(to_unsigned(value, 8));
      d_last <= digit(last);
      d_valid <= '1';
      wait for 1 fs;
      while d_ready = '0' loop
        wait until falling_edge(wclk);
      end loop;
      wait until falling_edge(wclk);
      d_valid <= '0';
    end;
  begin
    for k in 1 to 4 loop
      wait until falling_edge(wclk);
    end loop;
    while not endfile(f) loop
      readline(f, l);
      read(l, length);
      read(l, back_after);
      for k in 0 to length - 1 loop
        give((16 * number + k) mod 256, k = length - 1 and back_after = 0);
      end loop;
      if back_after = 1 then
        back <= '1';
        wait until falling_edge(wclk);
        back <= '0';
      end if;
      number := number + 1;
    end loop;
    for k in 1 to 12 loop
      wait until falling_edge(wclk);
    end loop;
    finished <= true;
    wait;
  end process;

  reading : process
    variable l : line;
    variable quiet : natural := 0;
  begin
    for k in 1 to 4 loop
      wait until falling_edge(rclk);
    end loop;
    threshold <= to_unsigned(least, log + 1);
    set <= '1';
    wait until falling_edge(rclk);
    set <= '0';
    while not finished or quiet < 12 + wait_out loop
      quiet := quiet + 1;
      if q_valid = '1' and quiet > wait_out then
        hwrite(l, q);
        if is_bad = '1' then
          write(l, string'(" bad"));
        end if;
        if q_last = '1' then
          writeline(output, l);
        else
          write(l, ' ');
        end if;
        q_ready <= '1';
        quiet := 0;
      end if;
      wait until falling_edge(rclk);
      q_ready <= '0';
      wait for 1 fs;
    end loop;
    told("nearly full " & std_logic'image(is_nearly_full)(2) & ", free " & integer'image(to_integer(room)));
    ask <= '1';
    wait until falling_edge(rclk);
    ask <= '0';
    while answered = '0' loop
      wait until falling_edge(rclk);
    end loop;
    told("taken back " & integer'image(answer.taken_back) & ", too long " & integer'image(answer.too_long));
    told("between " & integer'image(lowest) & " and " & integer'image(highest));
    done <= true;
    wait;
  end process;
end;
