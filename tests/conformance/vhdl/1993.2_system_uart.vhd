-- IEEE 1076-1993 clauses 2, 4, 8 and 9, 1164, 1076.3: a whole small system, read line by line when it was recorded
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use ieee.math_real.all;

package uart_pkg is
  type parity_t is (none, even, odd);
  type uart_cfg is record
    div    : positive;
    parity : parity_t;
    stop2  : boolean;
  end record;
  constant default_cfg : uart_cfg := (div => 4, parity => even, stop2 => false);
  function parity_of(d : std_logic_vector; p : parity_t) return std_logic;
  component uart_tx is
    generic (cfg : uart_cfg := default_cfg; W : natural range 5 to 9 := 8);
    port (clk, rst : in std_logic; data : in std_logic_vector(W-1 downto 0); start : in std_logic;
          busy : out std_logic; tx : out std_logic);
  end component;
end package;
package body uart_pkg is
  function parity_of(d : std_logic_vector; p : parity_t) return std_logic is
    variable r : std_logic := '0';
  begin
    for i in d'range loop
      r := r xor d(i);
    end loop;
    case p is
      when even => return r;
      when odd => return not r;
      when none => return '-';
    end case;
  end;
end package body;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.uart_pkg.all;
entity uart_tx is
  generic (cfg : uart_cfg := default_cfg; W : natural range 5 to 9 := 8);
  port (clk, rst : in std_logic; data : in std_logic_vector(W-1 downto 0); start : in std_logic;
        busy : out std_logic; tx : out std_logic);
end entity;
architecture rtl of uart_tx is
  type state_t is (s_idle, s_start, s_data, s_parity, s_stop);
  signal state : state_t := s_idle;
  signal sh : std_logic_vector(data'range);
  signal cnt : integer range 0 to cfg.div - 1 := 0;
  signal bitn : unsigned(3 downto 0);
  signal par : std_logic;
begin
  process (clk)
    procedure tick(nxt : state_t) is
    begin
      if cnt = cfg.div - 1 then
        cnt <= 0;
        state <= nxt;
      else
        cnt <= cnt + 1;
      end if;
    end procedure;
  begin
    if rising_edge(clk) then
      if rst = '1' then
        state <= s_idle; tx <= '1'; cnt <= 0;
      else
        case state is
          when s_idle =>
            tx <= '1';
            if start = '1' then
              sh <= data; par <= parity_of(data, cfg.parity); state <= s_start; bitn <= (others => '0');
            end if;
          when s_start => tx <= '0'; tick(s_data);
          when s_data =>
            tx <= sh(0);
            if cnt = cfg.div - 1 then
              sh <= '0' & sh(sh'high downto 1);
              bitn <= bitn + 1;
              if bitn = W - 1 then
                if cfg.parity = none then tick(s_stop); else tick(s_parity); end if;
              else
                cnt <= 0;
              end if;
            else
              cnt <= cnt + 1;
            end if;
          when s_parity => tx <= par; tick(s_stop);
          when others => tx <= '1'; tick(s_idle);
        end case;
      end if;
    end if;
  end process;
  busy <= '0' when state = s_idle else '1';
end architecture;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use std.textio.all;
use ieee.std_logic_textio.all;
use work.uart_pkg.all;
entity tb is end;
architecture sim of tb is
  constant period : time := 10 ns;
  signal clk : std_logic := '0';
  signal rst, start : std_logic := '0';
  signal data : std_logic_vector(7 downto 0);
  signal busy, tx : std_logic;
  signal stop_clk : boolean := false;
  type bytes_t is array (natural range <>) of std_logic_vector(7 downto 0);
  constant msgs : bytes_t := (x"55", x"A3", "00001111");
begin
  clk <= not clk after period / 2 when not stop_clk;
  dut : uart_tx port map (clk, rst, data, start, busy, tx);
  stim : process
    variable l : line;
    variable rx : std_logic_vector(9 downto 0);
    variable errors : natural := 0;
  begin
    rst <= '1';
    wait for 3 * period;
    wait until rising_edge(clk);
    rst <= '0';
    for i in msgs'range loop
      data <= msgs(i);
      start <= '1';
      wait until rising_edge(clk);
      start <= '0';
      wait until falling_edge(tx);
      wait for period * default_cfg.div * 1.5;
      for b in 0 to 8 loop
        rx(b) := tx;
        wait for default_cfg.div * period;
      end loop;
      write(l, string'("byte "));
      write(l, i);
      write(l, string'(": "));
      hwrite(l, rx(7 downto 0));
      write(l, string'(" parity "));
      write(l, rx(8));
      write(l, string'(" at "));
      write(l, now, right, 8, ns);
      writeline(output, l);
      if rx(7 downto 0) /= msgs(i) or rx(8) /= parity_of(msgs(i), even) then
        errors := errors + 1;
      end if;
      if busy = '1' then wait until busy = '0'; end if;
    end loop;
    assert errors = 0 report "errors: " & natural'image(errors) severity error;
    report "done with " & integer'image(errors) & " errors";
    stop_clk <= true;
    wait;
  end process;
end architecture;
--> byte 0: 55 parity 0 at   475 ns
--> byte 1: A3 parity 0 at   925 ns
--> byte 2: 0F parity 0 at  1375 ns
--> note: done with 0 errors
