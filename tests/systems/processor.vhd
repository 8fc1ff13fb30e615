-- A pipelined processor of five stages with forwarding, a stall after loads and branches decided in the third stage.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
package cpu_pkg is
  subtype word_t is unsigned(15 downto 0);
  type words is array (natural range <>) of word_t;
  type op_t is (nop, add_it, sub_it, and_it, or_it, xor_it, slt, addi, ld, st, beq, lui, other_12, other_13, other_14, halt);
  function op (i : word_t) return op_t;
  function rd (i : word_t) return natural;
  function rs (i : word_t) return natural;
  function rt (i : word_t) return natural;
  function writes (i : word_t) return boolean;
  function uses (i : word_t; n : natural) return boolean;
  function immediate (i : word_t) return word_t;
end package;

package body cpu_pkg is
  function op (i : word_t) return op_t is
  begin
    return op_t'val(to_integer(i(15 downto 12)));
  end;

  function rd (i : word_t) return natural is
  begin
    return to_integer(i(11 downto 9));
  end;

  function rs (i : word_t) return natural is
  begin
    return to_integer(i(8 downto 6));
  end;

  function rt (i : word_t) return natural is
  begin
    return to_integer(i(5 downto 3));
  end;

  function writes (i : word_t) return boolean is
  begin
    return ((op(i) >= add_it and op(i) <= ld) or op(i) = lui) and rd(i) /= 0;
  end;

  function uses (i : word_t; n : natural) return boolean is
  begin
    case op(i) is
      when add_it to slt => return rs(i) = n or rt(i) = n;
      when addi | ld => return rs(i) = n;
      when st | beq => return rs(i) = n or rd(i) = n;
      when others => return false;
    end case;
  end;

  function immediate (i : word_t) return word_t is
  begin
    return unsigned(resize(signed(i(5 downto 0)), 16));
  end;
end package body;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.cpu_pkg.all;
entity cpu is
  port (clk, rst_n : in std_logic; word, read : in word_t; fetch : out natural range 0 to 63; we : out std_logic;
        address, written : out word_t := x"0000"; halted : out std_logic; registers : out words(0 to 7));
end;

architecture rtl of cpu is
  type stage_t is record
    valid : boolean;
    i : word_t;
    pc : natural range 0 to 63;
    a, b, d : word_t;
  end record;
  constant empty : stage_t := (false, x"0000", 0, x"0000", x"0000", x"0000");
  signal pc : natural range 0 to 63 := 0;
  signal f, d, x, w : stage_t := empty;
  signal r : words(0 to 7) := (others => x"0000");
  signal a, b, v, result : word_t := x"0000";
  signal stall, taken : boolean;
begin
  process (all)
    impure function forwarded (n : natural; plain : word_t) return word_t is
    begin
      if n = 0 then
        return x"0000";
      elsif x.valid and writes(x.i) and rd(x.i) = n then
        return x.a;
      elsif w.valid and writes(w.i) and rd(w.i) = n then
        return w.a;
      end if;
      return plain;
    end;
  begin
    a <= forwarded(rs(d.i), d.a);
    b <= forwarded(rt(d.i), d.b);
    v <= forwarded(rd(d.i), d.d);
  end process;

  taken <= d.valid and op(d.i) = beq and v = a;
  stall <= d.valid and op(d.i) = ld and rd(d.i) /= 0 and f.valid and uses(f.i, rd(d.i));

  with op(d.i) select
    result <= a + b when add_it,
      a - b when sub_it,
      a and b when and_it,
      a or b when or_it,
      a xor b when xor_it,
      x"0001" when slt,
      a + immediate(d.i) when addi | ld | st,
      d.i(8 downto 0) & "0000000" when lui,
      x"0000" when others;

  fetch <= pc;
  we <= '1' when x.valid and op(x.i) = st else '0';
  address <= x.a;
  written <= x.d;
  halted <= '1' when w.valid and op(w.i) = halt else '0';
  registers <= r;

  process (clk, rst_n)
    impure function current (n : natural) return word_t is
    begin
      if w.valid and writes(w.i) and rd(w.i) = n then
        return w.a;
      end if;
      return r(n);
    end;
  begin
    if rst_n = '0' then
      pc <= 0;
      f <= empty;
      d <= empty;
      x <= empty;
      w <= empty;
      r <= (others => x"0000");
    elsif rising_edge(clk) then
      if taken then
        pc <= to_integer(to_unsigned(d.pc + 1, 6) + immediate(d.i)(5 downto 0));
        f <= empty;
      elsif not stall then
        pc <= (pc + 1) mod 64;
        f <= (true, word, pc, x"0000", x"0000", x"0000");
      end if;
      d <= (f.valid, f.i, f.pc, current(rs(f.i)), current(rt(f.i)), current(rd(f.i)));
      if taken or stall then
        d <= empty;
      end if;
      x <= (d.valid, d.i, d.pc, result, x"0000", v);
      if op(d.i) = slt and not (signed(a) < signed(b)) then
        x.a <= x"0000";
      end if;
      w <= x;
      if op(x.i) = ld then
        w.a <= read;
      end if;
      if w.valid and writes(w.i) then
        r(rd(w.i)) <= w.a;
      end if;
    end if;
  end process;
end;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.cpu_pkg.all;
use std.textio.all;
entity bench is end;

architecture sim of bench is
  signal clk, rst_n, we, halted : std_logic := '0';
  signal word, read_word, address, written : word_t := x"0000";
  signal fetch : natural range 0 to 63 := 0;
  signal image, cells : words(0 to 63) := (others => x"0000");
  signal registers : words(0 to 7);
begin
  dut : entity work.cpu port map (clk, rst_n, word, read_word, fetch, we, address, written, halted, registers);
  word <= image(fetch);
  read_word <= cells(to_integer(address mod 64));

  process
    file f : text open read_mode is "program.hex";
    variable l : line;
    variable bits : std_logic_vector(15 downto 0);
    variable cycles, n : natural := 0;
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
    wait for 2 ns;
    rst_n <= '1';
    wait for 1 ns;
    while halted = '0' and cycles < 500 loop
      if we = '1' then
        cells(to_integer(address mod 64)) <= written;
      end if;
      clk <= '1';
      wait for 1 ns;
      clk <= '0';
      wait for 1 ns;
      cycles := cycles + 1;
    end loop;
    for i in 0 to 7 loop
      write(l, to_hstring(registers(i)) & " ");
    end loop;
    writeline(output, l);
    for i in 0 to 63 loop
      write(l, to_hstring(cells(i)) & " ");
    end loop;
    writeline(output, l);
    wait;
  end process;
end;
