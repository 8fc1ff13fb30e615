-- A FIFO between two clocks: pointers cross as Gray codes, through two registers.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity crossing is
  generic (w : positive := 4);
  port (clk : in std_logic; d : in unsigned(w - 1 downto 0);
        q : out unsigned(w - 1 downto 0) := (others => '0'));
end;

architecture rtl of crossing is
  signal first, second : unsigned(w - 1 downto 0) := (others => '0');
begin
  process (clk)
  begin
    if rising_edge(clk) then
      first <= d;
      second <= first;
    end if;
  end process;
  q <= second;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity fifo is
  generic (log : positive := 2);
  port (wclk, rclk, put, take : in std_logic; d : in natural; q : out natural; ready, valid : out std_logic);
end;

architecture rtl of fifo is
  type cells_t is array (0 to 2 ** log - 1) of natural;
  signal cells : cells_t := (others => 0);
  signal head, tail, head_gray, tail_gray, head_seen, tail_seen : unsigned(log downto 0) := (others => '0');
  signal can_put, can_take : boolean;

  function gray (n : unsigned) return unsigned is
  begin
    return n xor shift_right(n, 1);
  end;
begin
  to_reader : entity work.crossing generic map (log + 1) port map (rclk, head_gray, head_seen);
  to_writer : entity work.crossing generic map (log + 1) port map (wclk, tail_gray, tail_seen);

  -- Full where the Gray codes differ in their two upper digits alone.
  can_put <= head_gray /= (not tail_seen(log downto log - 1)) & tail_seen(log - 2 downto 0);
  can_take <= tail_gray /= head_seen;
  ready <= '1' when can_put else '0';
  valid <= '1' when can_take else '0';
  q <= cells(to_integer(tail(log - 1 downto 0)));

  process (wclk)
  begin
    if rising_edge(wclk) and put = '1' and can_put then
      cells(to_integer(head(log - 1 downto 0))) <= d;
      head <= head + 1;
      head_gray <= gray(head + 1);
    end if;
  end process;

  process (rclk)
  begin
    if rising_edge(rclk) and take = '1' and can_take then
      tail <= tail + 1;
      tail_gray <= gray(tail + 1);
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use std.textio.all;
entity bench is end;

architecture sim of bench is
  signal wclk, rclk, put, take, ready, valid : std_logic := '0';
  signal d, q : natural := 0;
  signal fast, slow, count, wait_in, wait_out : natural := 0;
  signal is_set, done : boolean := false;
begin
  dut : entity work.fifo port map (wclk, rclk, put, take, d, q, ready, valid);

  process
    file f : text open read_mode is "clocks.txt";
    variable l : line;
    variable a, b, c, x, y : natural;
  begin
    readline(f, l);
    read(l, a);
    read(l, b);
    read(l, c);
    read(l, x);
    read(l, y);
    fast <= a;
    slow <= b;
    count <= c;
    wait_in <= x;
    wait_out <= y;
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

  process
  begin
    wait until is_set;
    for i in 0 to count - 1 loop
      for k in 1 to i mod (wait_in + 1) loop
        wait until falling_edge(wclk);
      end loop;
      d <= i;
      put <= '1';
      wait for 0 ns;
      while ready = '0' loop
        wait until falling_edge(wclk);
      end loop;
      wait until falling_edge(wclk);
      put <= '0';
    end loop;
    wait;
  end process;

  process
    variable l : line;
  begin
    wait until is_set;
    for i in 0 to count - 1 loop
      for k in 1 to wait_out loop
        wait until falling_edge(rclk);
      end loop;
      while valid = '0' loop
        wait until falling_edge(rclk);
      end loop;
      write(l, q);
      writeline(output, l);
      take <= '1';
      wait until falling_edge(rclk);
      take <= '0';
      wait for 0 ns;
    end loop;
    done <= true;
    wait;
  end process;
end;
