-- A memory controller: it keeps a row open in each bank, closes and opens as it must, and refreshes in time.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
package memory_pkg is
  constant refresh_every : natural := 60;
  constant open_time : natural := 2;
  constant read_time : natural := 2;
  type command_t is (nothing, activate, read_it, write_it, precharge, refresh);
  subtype byte is std_logic_vector(7 downto 0);
  type address_t is record
    row : unsigned(3 downto 0);
    bank : natural range 0 to 3;
    column : unsigned(3 downto 0);
  end record;
  type rows is array (0 to 3) of unsigned(3 downto 0);
end package;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.memory_pkg.all;
entity controller is
  port (clk, valid, is_write : in std_logic; address : in address_t; data, from_chip : in byte;
        ready, answered : out std_logic; answer : out byte; command : out command_t;
        bank : out natural range 0 to 3; number : out unsigned(3 downto 0); to_chip : out byte);
end;

architecture rtl of controller is
  type phase_t is (idle, closing, opening, access_it, waiting, closing_all, refreshing);
  signal phase : phase_t := idle;
  signal is_open : std_logic_vector(0 to 3) := "0000";
  signal open_row : rows := (others => "0000");
  signal a : address_t := ("0000", 0, "0000");
  signal writes : std_logic := '0';
  signal d : byte := x"00";
  signal since : natural := 0;
  signal count : natural range 0 to 7 := 0;
  signal closed : natural range 0 to 3 := 0;
  signal due : boolean;
begin
  due <= since >= refresh_every - 16;
  ready <= '1' when phase = idle and not due else '0';
  to_chip <= d;

  process (all)
  begin
    command <= nothing;
    bank <= a.bank;
    number <= a.row;
    case phase is
      when closing => command <= precharge;
      when opening =>
        if count = 0 then
          command <= activate;
        end if;
      when access_it =>
        command <= write_it when writes = '1' else read_it;
        number <= a.column;
      when closing_all =>
        if is_open(closed) = '1' then
          command <= precharge;
          bank <= closed;
        end if;
      when refreshing =>
        if count = 0 then
          command <= refresh;
        end if;
      when idle | waiting => null;
    end case;
  end process;

  process (clk)
  begin
    if rising_edge(clk) then
      since <= since + 1;
      answered <= '0';
      case phase is
        when idle =>
          count <= 0;
          closed <= 0;
          if due then
            phase <= closing_all;
          elsif valid = '1' then
            a <= address;
            d <= data;
            writes <= is_write;
            if is_open(address.bank) = '0' then
              phase <= opening;
            elsif open_row(address.bank) = address.row then
              phase <= access_it;
            else
              phase <= closing;
            end if;
          end if;
        when closing =>
          is_open(a.bank) <= '0';
          phase <= opening;
        when opening =>
          count <= count + 1;
          is_open(a.bank) <= '1';
          open_row(a.bank) <= a.row;
          if count = open_time then
            phase <= access_it;
            count <= 0;
          end if;
        when access_it =>
          phase <= idle when writes = '1' else waiting;
        when waiting =>
          count <= count + 1;
          if count = read_time - 1 then
            answer <= from_chip;
            answered <= '1';
            phase <= idle;
          end if;
        when closing_all =>
          is_open(closed) <= '0';
          if closed = 3 then
            phase <= refreshing;
          else
            closed <= closed + 1;
          end if;
        when refreshing =>
          count <= count + 1;
          if count = 3 then
            since <= 0;
            phase <= idle;
          end if;
      end case;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.memory_pkg.all;
use std.textio.all;
entity chip is
  port (clk : in std_logic; command : in command_t; bank : in natural range 0 to 3; number : in unsigned(3 downto 0);
        to_chip : in byte; from_chip : out byte);
end;

architecture model of chip is
  type cells_t is array (0 to 1023) of byte;
begin
  process (clk)
    variable cells : cells_t := (others => x"ee");
    variable row : rows := (others => "0000");
    variable opened : std_logic_vector(0 to 3) := "0000";
    variable coming : byte;
    variable is_coming : boolean := false;
    variable last, cycle, place : natural := 0;
    procedure told (what : string) is
      variable l : line;
    begin
      write(l, "violation: " & what & " in cycle " & integer'image(cycle));
      writeline(output, l);
    end;
  begin
    if rising_edge(clk) then
      cycle := cycle + 1;
      if cycle - last > refresh_every then
        told("no refresh");
      end if;
      if command /= read_it and is_coming then
        from_chip <= coming;
        is_coming := false;
      end if;
      case command is
        when activate =>
          if opened(bank) = '1' then
            told("open twice");
          end if;
          opened(bank) := '1';
          row(bank) := number;
        when precharge =>
          if opened(bank) = '0' then
            told("closed twice");
          end if;
          opened(bank) := '0';
        when read_it | write_it =>
          if opened(bank) = '0' then
            told("not open");
          end if;
          place := to_integer(row(bank)) * 64 + bank * 16 + to_integer(number);
          if command = write_it then
            cells(place) := to_chip;
          else
            coming := cells(place);
            is_coming := true;
          end if;
        when refresh =>
          if opened /= "0000" then
            told("refresh while open");
          end if;
          last := cycle;
        when nothing => null;
      end case;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.memory_pkg.all;
use std.textio.all;
use std.env.all;
entity bench is end;

architecture sim of bench is
  signal clk, valid, is_write : std_logic := '0';
  signal address : address_t := ("0000", 0, "0000");
  signal data, from_chip, to_chip, answer : byte := x"00";
  signal ready, answered : std_logic;
  signal command : command_t;
  signal bank : natural range 0 to 3;
  signal place : unsigned(3 downto 0);
  signal cycle, asked, got : natural := 0;
begin
  clk <= not clk after 5 ns;
  c : entity work.controller
    port map (clk, valid, is_write, address, data, from_chip, ready, answered, answer, command, bank, place, to_chip);
  ram : entity work.chip port map (clk, command, bank, place, to_chip, from_chip);

  process (clk)
    variable l : line;
  begin
    if rising_edge(clk) then
      cycle <= cycle + 1;
      if answered = '1' then
        write(l, to_integer(unsigned(answer)));
        writeline(output, l);
        got <= got + 1;
      end if;
    end if;
  end process;

  process
    file f : text open read_mode is "requests.txt";
    variable l, o : line;
    variable kind : character;
    variable number, value : integer;
    variable bits : unsigned(9 downto 0);
  begin
    while not endfile(f) loop
      readline(f, l);
      read(l, kind);
      read(l, number);
      read(l, value);
      wait until falling_edge(clk);
      while ready = '0' loop
        wait until falling_edge(clk);
      end loop;
      valid <= '1';
      is_write <= '1' when kind = 'w' else '0';
      bits := to_unsigned(number, 10);
      address <= (bits(9 downto 6), to_integer(bits(5 downto 4)), bits(3 downto 0));
      data <= std_logic_vector(to_unsigned(value mod 256, 8));
      if kind /= 'w' then
        asked <= asked + 1;
      end if;
      wait until falling_edge(clk);
      valid <= '0';
      if kind = 'p' then
        for i in 1 to value loop
          wait until falling_edge(clk);
        end loop;
      end if;
    end loop;
    while got < asked loop
      wait until falling_edge(clk);
    end loop;
    write(o, "cycles " & integer'image(cycle));
    writeline(output, o);
    finish;
  end process;
end;
