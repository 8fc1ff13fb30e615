-- A pipelined processor of five stages: forwarding, a stall after loads, branches foretold by what they did before, a unit
-- that multiplies and divides in sixteen cycles, and interrupts and traps that leave every instruction either done or not
-- begun.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
package cpu_pkg is
  subtype word_t is unsigned(15 downto 0);
  subtype place_t is unsigned(6 downto 0);
  subtype register_t is natural range 0 to 7;
  type words is array (natural range <>) of word_t;
  type op_t is (nop, quick, long, addi, andi, ld, st, slti, beq, bne, blt, lui, jmp, shi, sys, halt);
  type quick_t is (add_it, sub_it, and_it, or_it, xor_it, slt, sltu, sra_it);
  type long_t is (mul, mulhu, divu, remu);
  type shift_t is (sll_it, srl_it, sar, rol_it);
  type sys_t is (go_back, enable, disable, call, get_cause, get_place, set_place, nothing);
  type cause_t is (interrupt, called, divided, illegal);
  constant vector : place_t := to_unsigned(4, 7);
  constant zero : word_t := x"0000";

  function op (i : word_t) return op_t;
  function rd (i : word_t) return register_t;
  function rs (i : word_t) return register_t;
  function rt (i : word_t) return register_t;
  function x (i : word_t) return natural;
  function is_branch (i : word_t) return boolean;
  function writes (i : word_t) return boolean;
  function uses (i : word_t; n : register_t) return boolean;
  function immediate (i : word_t) return word_t;
  function to_word (b : boolean) return word_t;
end package;

package body cpu_pkg is
  function op (i : word_t) return op_t is
  begin
    return op_t'val(to_integer(i(15 downto 12)));
  end;

  function rd (i : word_t) return register_t is
  begin
    return to_integer(i(11 downto 9));
  end;

  function rs (i : word_t) return register_t is
  begin
    return to_integer(i(8 downto 6));
  end;

  function rt (i : word_t) return register_t is
  begin
    return to_integer(i(5 downto 3));
  end;

  function x (i : word_t) return natural is
  begin
    return to_integer(i(2 downto 0));
  end;

  function is_branch (i : word_t) return boolean is
  begin
    return op(i) >= beq and op(i) <= blt;
  end;

  function writes (i : word_t) return boolean is
  begin
    if rd(i) = 0 then
      return false;
    end if;
    case op(i) is
      when quick to ld | slti | lui to shi => return true;
      when sys => return sys_t'val(x(i)) = get_cause or sys_t'val(x(i)) = get_place;
      when others => return false;
    end case;
  end;

  -- Whether an instruction reads a register: as its first, its second or its third operand.
  function uses (i : word_t; n : register_t) return boolean is
  begin
    case op(i) is
      when quick | long => return rs(i) = n or rt(i) = n;
      when addi to ld | slti | jmp | shi => return rs(i) = n;
      when st | beq to blt => return rs(i) = n or rd(i) = n;
      when sys => return sys_t'val(x(i)) = set_place and rd(i) = n;
      when others => return false;
    end case;
  end;

  function immediate (i : word_t) return word_t is
  begin
    return unsigned(resize(signed(i(5 downto 0)), 16));
  end;

  function to_word (b : boolean) return word_t is
  begin
    if b then
      return x"0001";
    end if;
    return zero;
  end;
end package body;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.cpu_pkg.all;
entity alu is
  port (i, a, b, c : in word_t; y : out word_t);
end;

architecture rtl of alu is
  function shifted (kind : shift_t; v : word_t; by : natural) return word_t is
  begin
    case kind is
      when sll_it => return shift_left(v, by);
      when srl_it => return shift_right(v, by);
      when sar => return unsigned(shift_right(signed(v), by));
      when rol_it => return rotate_left(v, by);
    end case;
  end;
begin
  process (all)
  begin
    y <= zero;
    case op(i) is
      when quick =>
        case quick_t'val(x(i)) is
          when add_it => y <= a + b;
          when sub_it => y <= a - b;
          when and_it => y <= a and b;
          when or_it => y <= a or b;
          when xor_it => y <= a xor b;
          when slt => y <= to_word(signed(a) < signed(b));
          when sltu => y <= to_word(a < b);
          when sra_it => y <= shifted(sar, a, to_integer(b(3 downto 0)));
        end case;
      when addi | ld | st => y <= a + c;
      when andi => y <= a and c;
      when slti => y <= to_word(signed(a) < signed(c));
      when lui => y <= i(8 downto 0) & "0000000";
      when shi => y <= shifted(shift_t'val(to_integer(i(5 downto 4))), a, to_integer(i(3 downto 0)));
      when others => null;
    end case;
  end process;
end;

-- Multiplies by adding and divides by subtracting, one digit a cycle; what it is given counts only in its first cycle.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.cpu_pkg.all;
entity long_unit is
  port (clk, rst_n : in std_logic; start, kill : in boolean; kind : in long_t; a, b : in word_t; done : buffer boolean := false;
        y : out word_t);
end;

architecture rtl of long_unit is
  signal busy : boolean := false;
  signal k : long_t := mul;
  signal count : natural range 0 to 15 := 0;
  signal high, low, other : word_t := zero;
begin
  process (clk, rst_n)
    variable sum, left : unsigned(16 downto 0);
  begin
    if rst_n = '0' then
      busy <= false;
      done <= false;
      count <= 0;
    elsif rising_edge(clk) then
      done <= busy and count = 15 and not kill;
      count <= (count + 1) mod 16;
      if kill then
        busy <= false;
      elsif start and not busy and not done then
        busy <= true;
        count <= 0;
        k <= kind;
        other <= b;
        high <= zero;
        low <= a;
      elsif busy then
        if k = mul or k = mulhu then
          sum := resize(high, 17);
          if low(0) = '1' then
            sum := sum + other;
          end if;
          (high, low) <= unsigned'(sum & low(15 downto 1));
        else
          left := high & low(15);
          if left >= other then
            left := left - other;
            low <= low(14 downto 0) & '1';
          else
            low <= low(14 downto 0) & '0';
          end if;
          high <= left(15 downto 0);
        end if;
        if count = 15 then
          busy <= false;
        end if;
      end if;
    end if;
  end process;

  with k select y <= low when mul | divu, high when others;
end;

-- What each of eight branches did: twice the other way before it is foretold otherwise.
library ieee;
use ieee.std_logic_1164.all;
entity foreteller is
  port (clk, rst_n : in std_logic; asked : in natural range 0 to 7; taken : out boolean;
        is_known, was_taken : in boolean; known : in natural range 0 to 7);
end;

architecture rtl of foreteller is
  type habit_t is (never, seldom, often, always);
  type habits_t is array (0 to 7) of habit_t;
  signal habits : habits_t := (others => seldom);
begin
  taken <= habits(asked) >= often;

  process (clk, rst_n)
  begin
    if rst_n = '0' then
      habits <= (others => seldom);
    elsif rising_edge(clk) and is_known then
      if was_taken and habits(known) /= habit_t'right then
        habits(known) <= habit_t'rightof(habits(known));
      elsif not was_taken and habits(known) /= habit_t'left then
        habits(known) <= habit_t'leftof(habits(known));
      end if;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.cpu_pkg.all;
entity cpu is
  port (clk, rst_n, irq : in std_logic; word, read : in word_t; fetch : out place_t := (others => '0');
        address, written : out word_t := zero; we, halted, acknowledge, retired, came : out std_logic;
        place : out place_t; into : out register_t; value : out word_t);
end;

architecture rtl of cpu is
  type fetched_t is record
    valid : boolean;
    i : word_t;
    pc : place_t;
    foretold : boolean;
  end record;
  type decoded_t is record
    f : fetched_t;
    a, b, d : word_t;
  end record;
  type executed_t is record
    valid, came : boolean;
    i : word_t;
    pc : place_t;
    result, d : word_t;
  end record;
  constant no_fetched : fetched_t := (false, zero, (others => '0'), false);
  constant no_decoded : decoded_t := (no_fetched, zero, zero, zero);
  constant no_executed : executed_t := (false, false, zero, (others => '0'), zero, zero);

  signal pc, return_place : place_t := (others => '0');
  signal f : fetched_t := no_fetched;
  signal d : decoded_t := no_decoded;
  signal e, w : executed_t := no_executed;
  signal r : words(0 to 7) := (others => zero);
  signal cause : cause_t := interrupt;
  signal enabled : boolean := false;

  signal a, b, v, c, plain, result, long_result : word_t := zero;
  signal interrupted, is_long, long_done, hold, runs, taken, foretold, learns, starts : boolean;
  signal trap, redirect, stall : boolean := false;
  signal new_cause : cause_t := interrupt;
  signal redirected, target : place_t := (others => '0');
  signal long_kind : long_t;

  function to_bit_of (b : boolean) return std_logic is
  begin
    if b then
      return '1';
    end if;
    return '0';
  end;
begin
  process (all)
    impure function forwarded (n : register_t; otherwise : word_t) return word_t is
    begin
      if n = 0 then
        return zero;
      elsif e.valid and writes(e.i) and rd(e.i) = n then
        return e.result;
      elsif w.valid and writes(w.i) and rd(w.i) = n then
        return w.result;
      end if;
      return otherwise;
    end;
  begin
    a <= forwarded(rs(d.f.i), d.a);
    b <= forwarded(rt(d.f.i), d.b);
    v <= forwarded(rd(d.f.i), d.d);
  end process;
  c <= immediate(d.f.i);

  learns <= runs and is_branch(d.f.i);
  starts <= is_long and not interrupted;
  long_kind <= long_t'val(x(d.f.i) mod 4);
  habits : entity work.foreteller
    port map (clk, rst_n, to_integer(pc(2 downto 0)), foretold, learns, taken, to_integer(d.f.pc(2 downto 0)));
  quick_unit : entity work.alu port map (d.f.i, a, b, c, plain);
  slow_unit : entity work.long_unit port map (clk, rst_n, starts, interrupted, long_kind, a, b, long_done, long_result);

  -- The third stage: everything is decided here, so what is older is done and what is younger has left no trace.
  interrupted <= irq = '1' and enabled and d.f.valid;
  is_long <= d.f.valid and op(d.f.i) = long and x(d.f.i) <= 3 and not (x(d.f.i) >= 2 and b = 0);
  hold <= is_long and not long_done and not interrupted;
  runs <= d.f.valid and not hold and not interrupted;
  target <= d.f.pc + 1 + c(6 downto 0);
  stall <= runs and op(d.f.i) = ld and rd(d.f.i) /= 0 and f.valid and uses(f.i, rd(d.f.i));
  with op(d.f.i) select taken <= v = a when beq, v /= a when bne, signed(v) < signed(a) when blt, false when others;

  decide : process (all)
    variable is_trap : boolean;
  begin
    is_trap := true;
    new_cause <= interrupt;
    if not interrupted then
      if op(d.f.i) = sys and sys_t'val(x(d.f.i)) = call then
        new_cause <= called;
      elsif (op(d.f.i) = long and x(d.f.i) > 3) or (op(d.f.i) = sys and sys_t'val(x(d.f.i)) = nothing) then
        new_cause <= illegal;
      elsif op(d.f.i) = long and not is_long then
        new_cause <= divided;
      else
        is_trap := false;
      end if;
      is_trap := is_trap and runs;
    end if;
    trap <= is_trap;

    redirect <= is_trap;
    redirected <= vector;
    if not is_trap and runs then
      case op(d.f.i) is
        when beq to blt =>
          redirect <= taken /= d.f.foretold;
          redirected <= target when taken else d.f.pc + 1;
        when jmp =>
          redirect <= true;
          redirected <= target;
          if rs(d.f.i) /= 0 then
            redirected <= a(6 downto 0) + c(6 downto 0);
          end if;
        when sys =>
          redirect <= sys_t'val(x(d.f.i)) = go_back;
          redirected <= return_place;
        when others => null;
      end case;
    end if;

    case op(d.f.i) is
      when long => result <= long_result;
      when jmp => result <= resize(d.f.pc + 1, 16);
      when sys =>
        if sys_t'val(x(d.f.i)) = get_cause then
          result <= to_unsigned(cause_t'pos(cause), 16);
        else
          result <= resize(return_place, 16);
        end if;
      when others => result <= plain;
    end case;
  end process;

  step : process (clk, rst_n)
    variable goes : boolean;

    impure function current (n : register_t) return word_t is
    begin
      if n = 0 then
        return zero;
      elsif w.valid and writes(w.i) and rd(w.i) = n then
        return w.result;
      end if;
      return r(n);
    end;
  begin
    if rst_n = '0' then
      pc <= (others => '0');
      return_place <= (others => '0');
      f <= no_fetched;
      d <= no_decoded;
      e <= no_executed;
      w <= no_executed;
      enabled <= false;
      cause <= interrupt;
      r <= (others => zero);
    elsif rising_edge(clk) then
      if redirect then
        pc <= redirected;
        f <= no_fetched;
      elsif not stall and not hold then
        goes := is_branch(word) and foretold;
        pc <= pc + 1;
        if goes then
          pc <= pc + 1 + immediate(word)(6 downto 0);
        end if;
        f <= (true, word, pc, goes);
      end if;

      if redirect or stall then
        d <= no_decoded;
      elsif hold then -- what was forwarded is gone in the next cycle
        d <= (d.f, a, b, v);
      else
        d <= (f, current(rs(f.i)), current(rt(f.i)), current(rd(f.i)));
      end if;

      if trap then
        cause <= new_cause;
        return_place <= d.f.pc when interrupted else d.f.pc + 1;
        enabled <= false;
      elsif runs and op(d.f.i) = sys then
        case sys_t'val(x(d.f.i)) is
          when go_back | enable => enabled <= true;
          when disable => enabled <= false;
          when set_place => return_place <= v(6 downto 0);
          when others => null;
        end case;
      end if;

      e <= (runs and not (trap and new_cause /= called), interrupted, d.f.i, d.f.pc, result, v);
      w <= e;
      if op(e.i) = ld then
        w.result <= read;
      end if;
      if w.valid and writes(w.i) then
        r(rd(w.i)) <= w.result;
      end if;
    end if;
  end process;

  fetch <= pc;
  acknowledge <= to_bit_of(interrupted);
  we <= to_bit_of(e.valid and op(e.i) = st);
  address <= e.result;
  written <= e.d;
  halted <= to_bit_of(w.valid and op(w.i) = halt);
  retired <= to_bit_of(w.valid);
  came <= to_bit_of(w.came);
  place <= w.pc;
  into <= rd(w.i) when writes(w.i) else 0;
  value <= w.result when writes(w.i) else zero;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.cpu_pkg.all;
use std.textio.all;
entity bench is end;

architecture sim of bench is
  signal clk, rst_n, irq, we, halted, acknowledge, retired, came : std_logic := '0';
  signal word, read_word, address, written, value : word_t := zero;
  signal fetch, place : place_t := (others => '0');
  signal into : register_t;
  signal image : words(0 to 127) := (others => zero);
  signal cells : words(0 to 63) := (others => zero);
begin
  dut : entity work.cpu
    port map (clk, rst_n, irq, word, read_word, fetch, address, written, we, halted, acknowledge, retired, came, place, into,
              value);
  word <= image(to_integer(fetch));
  -- What is below 8000 is memory; the rest is a device that tells what it is given and gives what it is asked by.
  read_word <= x"5a5a" xor address when address(15) = '1' else cells(to_integer(address mod 64));

  process
    file f : text open read_mode is "program.hex";
    file g : text open read_mode is "interrupts.txt";
    variable l, o : line;
    variable bits : std_logic_vector(15 downto 0);
    variable cycles, n : natural := 0;
    variable asked : integer := -1;
    variable was_taken : boolean;

    procedure next_asked is
    begin
      asked := -1;
      if not endfile(g) then
        readline(g, l);
        read(l, asked);
      end if;
    end;
  begin
    while not endfile(f) loop
      readline(f, l);
      hread(l, bits);
      image(n) <= unsigned(bits);
      n := n + 1;
    end loop;
    for i in 0 to 63 loop
      cells(i) <= to_unsigned(3 * i, 16);
    end loop;
    next_asked;
    wait for 2 ns;
    rst_n <= '1';
    wait for 1 ns;
    while halted = '0' and cycles < 3000 loop
      if asked = cycles then
        irq <= '1';
        next_asked;
      end if;
      wait for 1 ns;
      if retired = '1' then
        write(o, "did " & to_hstring(place) & " " & integer'image(into) & " " & to_hstring(value));
        writeline(output, o);
      end if;
      if came = '1' then
        write(o, string'("interrupt"));
        writeline(output, o);
      end if;
      if we = '1' and address(15) = '1' then
        write(o, "out " & to_hstring(written));
        writeline(output, o);
      elsif we = '1' then
        cells(to_integer(address mod 64)) <= written;
      end if;
      was_taken := acknowledge = '1';
      clk <= '1';
      wait for 1 ns;
      clk <= '0';
      wait for 1 ns;
      if was_taken then
        irq <= '0';
      end if;
      cycles := cycles + 1;
    end loop;
    write(o, "cycles " & integer'image(cycles));
    writeline(output, o);
    for i in 0 to 63 loop
      write(o, to_hstring(cells(i)) & " ");
    end loop;
    writeline(output, o);
    wait;
  end process;
end;
