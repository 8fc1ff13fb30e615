-- A memory controller for three who ask: who finds a row open goes first, but not for ever; rows stay open in each bank until
-- another is wanted, every time that the chip asks for is kept, and it is refreshed before it forgets.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
package memory_pkg is
  constant opens : natural := 3;
  constant closes : natural := 2;
  constant stays : natural := 7;
  constant settles : natural := 3;
  constant refreshes : natural := 6;
  constant answers : natural := 2;
  constant forgets : natural := 90;
  constant early : natural := 30;
  constant most_before : natural := 3;

  subtype port_t is natural range 0 to 2;
  subtype bank_t is natural range 0 to 3;
  subtype place_t is natural range 0 to 15; -- of a row or a column
  subtype word_t is std_logic_vector(15 downto 0);
  type command_t is (nothing, activate, read_it, write_it, precharge, refresh);
  type address_t is record
    row : place_t;
    bank : bank_t;
    column : place_t;
  end record;
  type request_t is record
    is_write : boolean;
    address : address_t;
    keeps : std_logic_vector(1 downto 0);
    data : word_t;
  end record;
  type requests_t is array (port_t) of request_t;
  type flags is array (natural range <>) of boolean;
  type rows is array (bank_t) of place_t;
  constant no_request : request_t := (false, (0, 0, 0), "00", x"0000");

  -- For a chip: a command with where it goes.
  type order_t is record
    command : command_t;
    bank : bank_t;
    number : place_t;
    keeps : std_logic_vector(1 downto 0);
    data : word_t;
  end record;
  constant no_order : order_t := (nothing, 0, 0, "00", x"0000");
end package;

-- Who waits for long goes first; who finds his row open may go before, so many times in a row.
library ieee;
use ieee.std_logic_1164.all;
use work.memory_pkg.all;
entity arbiter is
  port (clk : in std_logic; take : in boolean; valid, hits : in flags(port_t); any : out boolean; chosen : out port_t);
end;

architecture rtl of arbiter is
  type turns_t is array (port_t) of port_t;
  signal turns : turns_t := (0, 1, 2);
  signal before : natural range 0 to most_before := 0;
  signal first, pick : port_t := 0;
  signal is_any : boolean;
begin
  process (all)
    variable f, c : port_t;
  begin
    f := turns(2);
    for i in port_t'high downto 0 loop
      if valid(turns(i)) then
        f := turns(i);
      end if;
    end loop;
    c := f;
    if before < most_before then
      for i in port_t'high downto 0 loop
        if valid(turns(i)) and hits(turns(i)) then
          c := turns(i);
        end if;
      end loop;
    end if;
    first <= f;
    pick <= c;
  end process;
  is_any <= valid(0) or valid(1) or valid(2);
  any <= is_any;
  chosen <= pick;

  process (clk)
  begin
    if rising_edge(clk) and take and is_any then
      if pick = first then
        before <= 0;
      else
        before <= before + 1;
      end if;
      -- Who was taken goes to the end.
      if pick = turns(0) then
        turns <= (turns(1), turns(2), turns(0));
      elsif pick = turns(1) then
        turns <= (turns(0), turns(2), turns(1));
      end if;
    end if;
  end process;
end;

-- What one bank allows: it counts down to the next command of each kind.
library ieee;
use ieee.std_logic_1164.all;
use work.memory_pkg.all;
entity bank_state is
  port (clk : in std_logic; command : in command_t; row : in place_t; is_open, may_open, may_access, may_close : out boolean;
        open_row : out place_t);
end;

architecture rtl of bank_state is
  signal opened : boolean := false;
  signal to_open, to_access, to_close : natural range 0 to 7 := 0;

  function less (n : natural) return natural is
  begin
    return maximum(n, 1) - 1;
  end;
  function later (n, least : natural) return natural is
  begin
    return maximum(n, least) - 1;
  end;
begin
  process (clk)
  begin
    if rising_edge(clk) then
      to_open <= less(to_open);
      to_access <= less(to_access);
      to_close <= less(to_close);
      case command is
        when activate =>
          opened <= true;
          open_row <= row;
          to_access <= opens - 1;
          to_close <= stays - 1;
        when precharge =>
          opened <= false;
          to_open <= closes - 1;
        when write_it =>
          to_close <= later(to_close, settles);
        when read_it =>
          to_close <= later(to_close, 1);
        when refresh =>
          to_open <= refreshes - 1;
        when nothing => null;
      end case;
    end if;
  end process;

  is_open <= opened;
  may_open <= not opened and to_open = 0;
  may_access <= opened and to_access = 0;
  may_close <= opened and to_close = 0;
end;

library ieee;
use ieee.std_logic_1164.all;
use work.memory_pkg.all;
entity controller is
  port (clk : in std_logic; valid : in flags(port_t); requests : in requests_t; ready, answered : out flags(port_t);
        answer : out word_t; order : buffer order_t := no_order; from_chip : in word_t);
end;

architecture rtl of controller is
  type phase_t is (idle, serving, closing_all);
  type expected_t is record
    valid : boolean;
    who : port_t;
  end record;
  type expected_list is array (natural range <>) of expected_t;

  signal phase : phase_t := idle;
  signal now_asked : request_t := no_request;
  signal who, chosen : port_t := 0;
  signal hits : flags(port_t);
  signal is_open, may_open, may_access, may_close : flags(bank_t);
  signal open_row : rows;
  signal coming : expected_list(0 to answers) := (others => (false, 0));
  signal since : natural range 0 to 127 := 0;
  signal any, take, due : boolean;

  type commands is array (bank_t) of command_t;
  signal told : commands;

  function all_of (f : flags) return boolean is
  begin
    for i in f'range loop
      if not f(i) then
        return false;
      end if;
    end loop;
    return true;
  end;
  function none_of (f : flags) return boolean is
  begin
    for i in f'range loop
      if f(i) then
        return false;
      end if;
    end loop;
    return true;
  end;
begin
  due <= since >= forgets - early;
  take <= phase = idle and not due;
  answer <= from_chip;

  ports : for i in port_t generate
    alias address : address_t is requests(i).address;
  begin
    hits(i) <= is_open(address.bank) and open_row(address.bank) = address.row;
    ready(i) <= take and any and chosen = i;
    answered(i) <= coming(answers).valid and coming(answers).who = i;
  end generate;

  banks : for b in bank_t generate
    told(b) <= order.command when order.command = refresh or order.bank = b else nothing;
    state : entity work.bank_state
      port map (clk, told(b), order.number, is_open(b), may_open(b), may_access(b), may_close(b), open_row(b));
  end generate;

  a : entity work.arbiter port map (clk, take, valid, hits, any, chosen);

  decide : process (all)
    variable b : bank_t;
  begin
    b := now_asked.address.bank;
    order <= (nothing, b, now_asked.address.row, now_asked.keeps, now_asked.data);
    case phase is
      when idle => null;
      when serving =>
        if not is_open(b) then
          if may_open(b) then
            order.command <= activate;
          end if;
        elsif open_row(b) /= now_asked.address.row then
          if may_close(b) then
            order.command <= precharge;
          end if;
        elsif may_access(b) then
          order.command <= write_it when now_asked.is_write else read_it;
          order.number <= now_asked.address.column;
        end if;
      when closing_all =>
        if none_of(is_open) then
          if all_of(may_open) then
            order.command <= refresh;
          end if;
        else
          for n in bank_t loop
            if may_close(n) then
              order.command <= precharge;
              order.bank <= n;
              exit;
            end if;
          end loop;
        end if;
    end case;
  end process;

  step : process (clk)
  begin
    if rising_edge(clk) then
      since <= 0 when order.command = refresh else (since + 1) mod 128;
      coming <= expected_t'(order.command = read_it, who) & coming(0 to answers - 1);
      case phase is
        when idle =>
          if due then
            phase <= closing_all;
          elsif any then
            phase <= serving;
            now_asked <= requests(chosen);
            who <= chosen;
          end if;
        when serving =>
          if order.command = read_it or order.command = write_it then
            phase <= idle;
          end if;
        when closing_all =>
          if order.command = refresh then
            phase <= idle;
          end if;
      end case;
    end if;
  end process;
end;

-- The chip says what it does not allow; what was never written reads eeee.
library ieee;
use ieee.std_logic_1164.all;
use work.memory_pkg.all;
use std.textio.all;
entity chip is
  port (clk : in std_logic; order : in order_t; from_chip : out word_t);
end;

architecture model of chip is
  type cells_t is array (place_t, bank_t, place_t) of word_t;
  type times is array (bank_t) of integer;
begin
  process (clk)
    variable cells : cells_t := (others => (others => (others => x"eeee")));
    variable row : rows := (others => 0);
    variable opened : flags(bank_t) := (others => false);
    variable opened_at, closed_at, written_at : times := (others => -100);
    variable refreshed_at, cycle : natural := 0;
    variable coming : word_t := x"0000";
    alias bank : bank_t is order.bank;

    procedure told (what : string) is
      variable l : line;
    begin
      write(l, "violation: " & what & " in cycle " & integer'image(cycle));
      writeline(output, l);
    end;

    procedure wants (since : integer; least : natural; what : string) is
    begin
      if cycle - since < least then
        told(what & " after " & integer'image(cycle - since));
      end if;
    end;
  begin
    if rising_edge(clk) then
      cycle := cycle + 1;
      from_chip <= coming;
      if cycle - refreshed_at > forgets then
        told("forgotten");
      end if;
      if order.command >= activate and order.command <= precharge and refreshed_at > 0 then
        wants(refreshed_at, refreshes, "still refreshing");
      end if;
      case order.command is
        when activate =>
          if opened(bank) then
            told("open twice");
          end if;
          wants(closed_at(bank), closes, "opened too early");
          opened(bank) := true;
          row(bank) := order.number;
          opened_at(bank) := cycle;
        when precharge =>
          if not opened(bank) then
            told("closed twice");
          end if;
          wants(opened_at(bank), stays, "closed too early");
          wants(written_at(bank), settles, "closed before it was written");
          opened(bank) := false;
          closed_at(bank) := cycle;
        when read_it | write_it =>
          if not opened(bank) then
            told("not open");
          else
            wants(opened_at(bank), opens, "used too early");
            coming := cells(row(bank), bank, order.number);
            if order.command = write_it then
              for i in 0 to 1 loop
                if order.keeps(i) = '0' then
                  cells(row(bank), bank, order.number)(8 * i + 7 downto 8 * i) := order.data(8 * i + 7 downto 8 * i);
                end if;
              end loop;
              written_at(bank) := cycle;
            end if;
          end if;
        when refresh =>
          for b in bank_t loop
            if opened(b) then
              told("refresh while open");
            end if;
            wants(closed_at(b), closes, "refreshed too early");
          end loop;
          refreshed_at := cycle;
        when nothing => null;
      end case;
    end if;
  end process;
end;

-- One who asks, by a script of his own.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.memory_pkg.all;
use std.textio.all;
entity client is
  generic (who : port_t := 0);
  port (clk : in std_logic; ready, answered : in boolean; answer : in word_t; valid : buffer boolean := false;
        request : out request_t := no_request; done : out boolean := false);
end;

architecture sim of client is
  signal got : natural := 0;

  procedure told (what : string) is
    variable l : line;
  begin
    write(l, what);
    writeline(output, l);
  end;
begin
  hearing : process (clk)
  begin
    if rising_edge(clk) then
      if answered then
        told("answer " & integer'image(who) & " " & to_hstring(answer));
        got <= got + 1;
      end if;
      if valid and ready then
        told("took " & integer'image(who));
      end if;
    end if;
  end process;

  asking : process
    file f : text open read_mode is "requests" & integer'image(who) & ".txt";
    variable l : line;
    variable kind : character;
    variable number, value : integer;
    variable asked : natural := 0;

    procedure cycles (many : natural) is
    begin
      for n in 1 to many loop
        wait until falling_edge(clk);
      end loop;
    end;

    -- `wait` and `write` begin alike: the second letter tells them apart.
    impure function kind_of return character is
      variable found, c : character;
    begin
      read(l, found);
      read(l, c);
      if found = 'w' and c = 'a' then
        found := 'p';
      end if;
      while c /= ' ' loop
        read(l, c);
      end loop;
      return found;
    end;
  begin
    while not endfile(f) loop
      readline(f, l);
      kind := kind_of;
      read(l, number);
      read(l, value);
      cycles(1);
      if kind = 'p' then
        cycles(number);
      else
        -- `low` and `high` write one byte and keep the other
        request <= (is_write => kind /= 'r', address => (number / 64, number / 16 mod 4, number mod 16), keeps => "00",
                    data => word_t(to_unsigned(value, 16)));
        if kind = 'l' then
          request.keeps <= "10";
        elsif kind = 'h' then
          request.keeps <= "01";
        end if;
        valid <= true;
        wait for 1 ns;
        while not ready loop
          cycles(1);
          wait for 1 ns;
        end loop;
        cycles(1);
        valid <= false;
        if kind = 'r' then
          asked := asked + 1;
        end if;
      end if;
    end loop;
    while got < asked loop
      cycles(1);
    end loop;
    done <= true;
    wait;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use work.memory_pkg.all;
use std.textio.all;
use std.env.all;
entity bench is end;

architecture sim of bench is
  signal clk : std_logic := '0';
  signal valid, ready, answered, done : flags(port_t) := (others => false);
  signal requests : requests_t := (others => no_request);
  signal answer, from_chip : word_t := x"0000";
  signal order : order_t;
begin
  clk <= not clk after 5 ns;
  c : entity work.controller port map (clk, valid, requests, ready, answered, answer, order, from_chip);
  ram : entity work.chip port map (clk, order, from_chip);
  who : for i in port_t generate
    one : entity work.client generic map (i)
      port map (clk, ready(i), answered(i), answer, valid(i), requests(i), done(i));
  end generate;

  process
    variable l : line;
    variable cycle : natural := 0;
  begin
    wait until rising_edge(clk);
    if done = (true, true, true) then
      write(l, "cycles " & integer'image(cycle));
      writeline(output, l);
      finish;
    end if;
    cycle := cycle + 1;
  end process;
end;
