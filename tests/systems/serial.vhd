-- A serial port: 5 to 8 digits, parity or none, one or two stop digits, a break, queues on both sides, votes of three
-- samples, a wire back that says when there is room.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
package serial_pkg is
  constant samples_of_a_digit : positive := 8;
  subtype byte is std_logic_vector(7 downto 0);
  subtype word_t is std_logic_vector(15 downto 0);
  type phase_t is (idle, start, digits, parity, stop, released);
  type format_t is record
    more : natural range 0 to 3;
    has_parity, is_odd : boolean;
    stops : natural range 0 to 1;
  end record;
  type control_t is record
    waits, on_room, on_data, loops, is_broken : boolean;
  end record;
  type received_t is record
    is_break, bad_stop, bad_parity : std_logic;
    data : byte;
  end record;
  constant eight_digits : format_t := (3, false, false, 0);

  type register_t is (data, status, divisor, format, control, levels, none_6, none_7);

  function parity_of (data : byte; f : format_t) return std_logic;
  function to_format (w : word_t) return format_t;
  function to_word (f : format_t) return word_t;
  function to_control (w : word_t) return control_t;
  function to_word (c : control_t) return word_t;
  function to_word (r : received_t) return word_t;
  function digit (b : boolean) return std_logic;
end package;

package body serial_pkg is
  function digit (b : boolean) return std_logic is
  begin
    if b then
      return '1';
    end if;
    return '0';
  end;

  -- Of the digits that a format has; even parity is 0 for none or two.
  function parity_of (data : byte; f : format_t) return std_logic is
    variable found : std_logic := digit(f.is_odd);
  begin
    for n in 0 to 4 + f.more loop
      found := found xor data(n);
    end loop;
    return found;
  end;

  function to_format (w : word_t) return format_t is
  begin
    return (more => to_integer(unsigned(w(1 downto 0))), has_parity => w(2) = '1', is_odd => w(3) = '1',
            stops => to_integer(unsigned(w(4 downto 4))));
  end;

  function to_word (f : format_t) return word_t is
    variable found : word_t := (others => '0');
  begin
    found(1 downto 0) := std_logic_vector(to_unsigned(f.more, 2));
    found(4 downto 2) := digit(f.stops = 1) & digit(f.is_odd) & digit(f.has_parity);
    return found;
  end;

  function to_control (w : word_t) return control_t is
  begin
    return (w(4) = '1', w(3) = '1', w(2) = '1', w(1) = '1', w(0) = '1');
  end;

  function to_word (c : control_t) return word_t is
  begin
    return (4 => digit(c.waits), 3 => digit(c.on_room), 2 => digit(c.on_data), 1 => digit(c.loops),
            0 => digit(c.is_broken), others => '0');
  end;

  function to_word (r : received_t) return word_t is
  begin
    return "00000" & r.is_break & r.bad_stop & r.bad_parity & r.data;
  end;
end package body;

-- A queue of anything: of bytes for what is sent, of bytes with what was wrong about them for what came.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity queue is
  generic (log : positive := 2; w : positive := 8);
  port (clk, put, take : in std_logic; d : in std_logic_vector(w - 1 downto 0); q : out std_logic_vector(w - 1 downto 0);
        empty, full : out std_logic; count : out natural range 0 to 2 ** log);
end;

architecture rtl of queue is
  type cells_t is array (0 to 2 ** log - 1) of std_logic_vector(w - 1 downto 0);
  signal cells : cells_t := (others => (others => '0'));
  signal head, tail : natural range 0 to 2 ** log - 1 := 0;
  signal held : natural range 0 to 2 ** log := 0;
begin
  empty <= '1' when held = 0 else '0';
  full <= '1' when held = 2 ** log else '0';
  count <= held;
  q <= cells(tail);

  process (clk)
    variable puts, takes : boolean;
  begin
    if rising_edge(clk) then
      puts := put = '1' and held < 2 ** log;
      takes := take = '1' and held > 0;
      if puts then
        cells(head) <= d;
        head <= (head + 1) mod 2 ** log;
      end if;
      if takes then
        tail <= (tail + 1) mod 2 ** log;
      end if;
      if puts and not takes then
        held <= held + 1;
      elsif takes and not puts then
        held <= held - 1;
      end if;
    end if;
  end process;
end;

-- One tick in so many cycles; it begins anew where it is told to.
library ieee;
use ieee.std_logic_1164.all;
entity ticker is
  port (clk : in std_logic; restart : in boolean; divisor : in natural range 0 to 255; tick : buffer boolean);
end;

architecture rtl of ticker is
  signal left : natural range 0 to 255 := 0;
begin
  tick <= left = 0 and not restart;

  process (clk)
  begin
    if rising_edge(clk) then
      if restart or tick then
        left <= divisor;
      else
        left <= left - 1;
      end if;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use work.serial_pkg.all;
entity sender is
  port (clk : in std_logic; valid, is_broken, waits : in boolean; d : in byte; divisor : in natural range 0 to 255;
        set : in format_t; ready : buffer boolean; is_idle : out boolean; line_out : out std_logic := '1');
end;

architecture rtl of sender is
  signal phase : phase_t := idle;
  signal format : format_t := eight_digits;
  signal left : byte := (others => '0');
  signal even : std_logic := '0';
  signal count, samples : natural range 0 to 7 := 0;
  signal tick, last, ends, rests : boolean;
begin
  rests <= phase = idle;
  last <= tick and samples = samples_of_a_digit - 1;
  ends <= phase = stop and last and count = format.stops;
  ready <= (rests or ends) and not is_broken and not waits;
  is_idle <= rests;
  t : entity work.ticker port map (clk, rests, divisor, tick);

  process (clk)
  begin
    if rising_edge(clk) then
      case phase is
        when start => line_out <= '0';
        when digits => line_out <= left(0);
        when parity => line_out <= even;
        when others => line_out <= not digit(is_broken and phase = idle);
      end case;

      if tick then
        samples <= (samples + 1) mod samples_of_a_digit;
      end if;
      if last then
        case phase is
          when start =>
            phase <= digits;
            count <= 0;
          when digits =>
            left <= '0' & left(7 downto 1);
            if count = 4 + format.more then
              phase <= parity when format.has_parity else stop;
              count <= 0;
            else
              count <= count + 1;
            end if;
          when parity =>
            phase <= stop;
          when stop =>
            count <= count + 1;
            if ends then
              phase <= idle;
            end if;
          when others => null;
        end case;
      end if;
      if valid and ready then
        phase <= start;
        samples <= 0;
        left <= d;
        format <= set;
        even <= parity_of(d, set);
      end if;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use work.serial_pkg.all;
entity receiver is
  port (clk, line_in : in std_logic; divisor : in natural range 0 to 255; format : in format_t;
        valid : out std_logic := '0'; found : out received_t := ('0', '0', '0', x"00"));
end;

architecture rtl of receiver is
  signal phase : phase_t := idle;
  signal seen : std_logic_vector(1 downto 0) := "11";
  signal votes : natural range 0 to 3 := 0;
  signal data : byte := (others => '0');
  signal bad, any : std_logic := '0';
  signal count, samples : natural range 0 to 7 := 0;
  signal begins, tick : boolean;
begin
  begins <= phase = idle and seen(1) = '0';
  t : entity work.ticker port map (clk, begins, divisor, tick);

  process (clk)
    variable voted : boolean; -- two or three of three

    procedure next_digit is
    begin
      votes <= 0;
      case phase is
        when start =>
          phase <= digits;
        when digits =>
          if count = 4 + format.more then
            phase <= parity when format.has_parity else stop;
          else
            count <= count + 1;
          end if;
        when parity =>
          phase <= stop;
        when others =>
          phase <= phase_t'succ(phase);
      end case;
    end;

    procedure decide is
    begin
      case phase is
        when start =>
          if voted then
            phase <= idle; -- it was too short
          end if;
        when digits =>
          data(count) <= digit(voted);
          any <= any or digit(voted);
        when parity =>
          bad <= digit(voted) xor parity_of(data, format);
          any <= any or digit(voted);
        when stop =>
          valid <= '1';
          found <= (is_break => any nor digit(voted), bad_stop => not digit(voted), bad_parity => bad, data => data);
          phase <= idle when voted else released;
        when others => null;
      end case;
    end;
  begin
    if rising_edge(clk) then
      seen <= seen(0) & line_in;
      valid <= '0';
      voted := votes >= 2;
      if begins then
        phase <= start;
        samples <= 0;
        votes <= 0;
        count <= 0;
        bad <= '0';
        any <= '0';
        data <= (others => '0');
      elsif phase = released then
        if seen(1) = '1' then
          phase <= idle;
        end if;
      elsif tick and phase /= idle then
        samples <= (samples + 1) mod samples_of_a_digit;
        if samples >= 2 and samples <= 4 and seen(1) = '1' then
          votes <= votes + 1;
        end if;
        if samples = samples_of_a_digit - 1 then
          next_digit;
        end if;
        if samples = 5 then
          decide;
        end if;
      end if;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.serial_pkg.all;
entity serial_port is
  port (clk : in std_logic; address : in register_t; writes, reads : in boolean; to_port : in word_t; from_port : out word_t;
        line_in, may_send : in std_logic; line_out, has_room : out std_logic := '1'; irq : out std_logic);
end;

architecture rtl of serial_port is
  signal divisor_now : natural range 0 to 255 := 0;
  signal format_now : format_t := eight_digits;
  signal control_now : control_t := (others => false);
  signal overrun : std_logic := '0';
  signal put, take, give, nothing_to_send, send_full, none, receive_full, valid, wire, heard : std_logic;
  signal ready, is_quiet, may, waits : boolean;
  signal following : byte;
  signal found : received_t;
  signal first, came : std_logic_vector(10 downto 0);
  signal waiting, arrived : natural range 0 to 4;
begin
  put <= digit(writes and address = data);
  take <= digit(reads and address = data);
  give <= digit(ready);
  may <= nothing_to_send = '0';
  waits <= control_now.waits and may_send = '0';
  heard <= wire when control_now.loops else line_in;
  line_out <= wire or digit(control_now.loops);
  came <= to_word(found)(10 downto 0);

  to_send : entity work.queue
    port map (clk, put, give, to_port(7 downto 0), following, nothing_to_send, send_full, waiting);
  s : entity work.sender
    port map (clk, may, control_now.is_broken, waits, following, divisor_now, format_now, ready, is_quiet, wire);
  r : entity work.receiver port map (clk, heard, divisor_now, format_now, valid, found);
  come : entity work.queue generic map (w => 11)
    port map (clk, valid, take, came, first, none, receive_full, arrived);

  irq <= (digit(control_now.on_data) and not none) or (digit(control_now.on_room) and nothing_to_send);

  process (all)
  begin
    from_port <= (others => '0');
    case address is
      when data =>
        from_port(10 downto 0) <= first;
        if none = '1' then
          from_port <= x"8000";
        end if;
      when status => from_port(3 downto 0) <= overrun & not none & (nothing_to_send and digit(is_quiet)) & send_full;
      when divisor => from_port <= std_logic_vector(to_unsigned(divisor_now, 16));
      when format => from_port <= to_word(format_now);
      when control => from_port <= to_word(control_now);
      when levels => from_port <= std_logic_vector(to_unsigned(256 * arrived + waiting, 16));
      when others => from_port <= x"ffff";
    end case;
  end process;

  process (clk)
  begin
    if rising_edge(clk) then
      -- One more may be on its way when the other end is told, and one may just begin.
      has_room <= digit(arrived + to_integer(unsigned'(0 => valid)) < 3);
      if reads and address = status then
        overrun <= '0';
      end if;
      if valid = '1' and receive_full = '1' then
        overrun <= '1';
      end if;
      if writes then
        case address is
          when divisor => divisor_now <= to_integer(unsigned(to_port(7 downto 0)));
          when format => format_now <= to_format(to_port);
          when control => control_now <= to_control(to_port);
          when others => null;
        end case;
      end if;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.serial_pkg.all;
use std.textio.all;
use std.env.all;
entity bench is end;

architecture sim of bench is
  type words is array (0 to 1) of word_t;
  type places is array (0 to 1) of register_t;
  type flags is array (0 to 1) of boolean;
  signal clk : std_logic := '0';
  signal address : places := (others => data);
  signal writes, reads : flags := (others => false);
  signal to_port : words := (others => x"0000");
  signal from_port : words;
  signal lines, rooms, irqs, heard : std_logic_vector(0 to 1);
  signal noise : natural := 0;
begin
  clk <= not clk after 5 ns;
  heard(0) <= lines(1);
  heard(1) <= lines(0) xor digit(noise > 0);
  ends : for n in 0 to 1 generate
    p : entity work.serial_port
      port map (clk, address(n), writes(n), reads(n), to_port(n), from_port(n), heard(n), rooms(1 - n), lines(n), rooms(n),
                irqs(n));
  end generate;

  process
    file f : text open read_mode is "script.txt";
    variable l, o : line;
    variable kind : string(1 to 8);
    variable first, second, waited, noisy : integer;
    variable value : word_t;

    procedure next_cycle is
    begin
      wait until falling_edge(clk);
      noisy := maximum(0, noisy - 1);
      noise <= noisy;
    end;

    procedure put (n : natural; at : register_t; what : integer) is
    begin
      next_cycle;
      address(n) <= at;
      to_port(n) <= word_t(to_unsigned(what, 16));
      writes(n) <= true;
      next_cycle;
      writes(n) <= false;
    end;

    procedure get (n : natural; at : register_t; what : out word_t) is
    begin
      next_cycle;
      address(n) <= at;
      reads(n) <= true;
      wait for 1 ns;
      what := from_port(n);
      next_cycle;
      reads(n) <= false;
    end;

    procedure show (what : string) is
    begin
      write(o, what);
      writeline(output, o);
    end;

    procedure read_word (from : inout line; what : out string) is
      variable c : character;
      variable n : natural := 0;
    begin
      what := (1 to 8 => ' ');
      loop
        read(from, c);
        exit when c = ' ';
        n := n + 1;
        what(n) := c;
      end loop;
    end;
  begin
    noisy := 0;
    while not endfile(f) loop
      readline(f, l);
      read_word(l, kind);
      read(l, first);
      read(l, second);
      case kind is
        when "near    " => put(0, register_t'val(first), second);
        when "far     " => put(1, register_t'val(first), second);
        when "send    " =>
          loop
            get(0, status, value);
            exit when value(0) = '0';
          end loop;
          put(0, data, first);
        when "receive " =>
          for n in 1 to first loop
            waited := 0;
            loop
              get(1, status, value);
              waited := waited + 1;
              exit when value(2) = '1' or waited = 3000;
            end loop;
            get(1, data, value);
            show(to_hstring(value));
          end loop;
        when "show    " =>
          get(first, register_t'val(second), value);
          show(to_hstring(value));
        when "asks    " => show(to_string(irqs));
        when "noise   " =>
          noisy := first;
          noise <= noisy;
          wait for 0 ns;
        when "wait    " =>
          for n in 1 to first loop
            next_cycle;
          end loop;
        when others => report kind & "is no word of a script" severity failure;
      end case;
    end loop;
    finish;
  end process;
end;
