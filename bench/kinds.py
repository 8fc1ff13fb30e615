"""Kinds of ordinary VHDL against a plain unit of like size: what a construct costs when it is met.

`PYTHONPATH=src:. python bench/kinds.py` checks a small unit of each kind in 1,024 cases and prints its processor time
over that of an ordinary unit, with the engine that told it; the middle and the worst stand at the end."""

from __future__ import annotations

import time

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.handin import HandinFile

SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "a[5] b[5]"
out = "y[5]"
[expect]
equations = "y = {}"
"""
HEAD = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (a, b : in std_logic_vector(4 downto 0); y : out std_logic_vector(4 downto 0)); end;
architecture r of m is
  type square is array (0 to 1, 0 to 1) of std_logic_vector(4 downto 0);
  {declared}
begin
  {body}
end;
"""
PROCESS = "process (all) variable n, k : integer range 0 to 63; begin {} end process;"
NUMBER = "y <= std_logic_vector(to_unsigned(n, 5));"
A, B = "to_integer(unsigned(a))", "to_integer(unsigned(b))"
FUNCTION = """function f(p, q : std_logic_vector(4 downto 0)) return std_logic_vector is
    variable r : std_logic_vector(4 downto 0);
  begin
    if p = q then return p; end if;
    for i in r'range loop r(i) := p(i) xor q(i); end loop;
    return r;
  end;"""
BUS = """signal t : std_logic_vector(4 downto 0);"""
KINDS: list[tuple[str, str, str, str]] = [
    # kind, what is right, body, declarations
    ("an ordinary unit", "a & b", "y <= a and b;", ""),
    ("a comparison of two inputs in a process", "a == b ? a : a ^ b",
     PROCESS.format("if a = b then y <= a; else y <= a xor b; end if;"), ""),
    ("a function with a local variable and an early return", "a == b ? a : a ^ b", "y <= f(a, b);", FUNCTION),
    ("rotation by what varies", "0", "y <= std_logic_vector(rotate_left(unsigned(a), " + B + ")) and \"00000\";", ""),
    ("shift by what varies", "a >> b", "y <= std_logic_vector(shift_right(unsigned(a), " + B + "));", ""),
    ("abs", "a > b ? a - b : b - a", PROCESS.format(f"n := abs ({A} - {B}); {NUMBER}"), ""),
    ("rem of numbers", "a % (b + 1)", PROCESS.format(f"n := {A} rem ({B} + 1); {NUMBER}"), ""),
    ("division of numbers", "a / (b + 1)", PROCESS.format(f"n := {A} / ({B} + 1); {NUMBER}"), ""),
    ("while", "a % 7", PROCESS.format(f"n := {A}; while n >= 7 loop n := n - 7; end loop; {NUMBER}"), ""),
    ("for up to what varies", "a",
     PROCESS.format(f"n := 0; for i in 1 to {A} loop n := n + 1; end loop; {NUMBER}"), ""),
    ("case?", "a[4] ? b : a",
     PROCESS.format('case? a is when "1----" => y <= b; when others => y <= a; end case?;'), ""),
    ("std_match", "a == b ? a : b", 'y <= a when std_match(a, b) else b;', ""),
    ("wait on at the end", "a & b", "process begin y <= a and b; wait on a, b; end process;", ""),
    ("vectors of unlike length compared", "a[4..1] < b[4..1] ? a : b",
     "y <= a when a(4 downto 1) < b(4 downto 1) else b;", ""),
    ("a range left in some cases", "a",
     PROCESS.format(f"n := {A} + {B}; if n < 40 then k := n; end if; y <= a;"), ""),
    ("a range left in half of the cases", "a",
     f"process (all) variable m : integer range 0 to 31; begin m := {A} + {B}; y <= a; end process;", ""),
    ("a slice by what varies", "b[2..0] > 3 ? a : (a << (4 - b[2..0]) & 31) >> (4 - b[2..0])",
     PROCESS.format('y <= a; if unsigned(b(2 downto 0)) < 4 then k := to_integer(unsigned(b(2 downto 0)));'
                    " y(4 downto k + 1) <= (others => '0'); end if;"), ""),
    ("an aggregate by what varies", "b[2..0] > 4 ? 0 : (1 << b[2..0]) & 31",
     PROCESS.format("y <= (others => '0'); k := to_integer(unsigned(b(2 downto 0)));"
                    " if k <= 4 then y <= (k => '1', others => '0'); end if;"), ""),
    ("a loop to a number of any size", "a", f"process (all) variable n, k : natural; begin n := 0; k := {A};"
     f" for i in 1 to k loop n := n + 1; end loop; {NUMBER} end process;", ""),
    ("the greatest common divisor", "0", f"process (all) variable n, k, t : natural; begin n := {A}; k := {B};"
     f" while k /= 0 loop t := n mod k; n := k; k := t; end loop; {NUMBER} end process;", ""),
    ("recursion", "a[0] + a[1] + a[2] + a[3] + a[4]", "y <= std_logic_vector(to_unsigned(f(a), 5));",
     "function f(p : std_logic_vector) return natural is alias q : std_logic_vector(p'length - 1 downto 0) is p; begin"
     " if p'length = 1 then if q(0) = '1' then return 1; end if; return 0; end if;"
     " return f(q(p'length - 1 downto p'length / 2)) + f(q(p'length / 2 - 1 downto 0)); end;"),
    ("real numbers, one by one", "a / 2",
     f"y <= std_logic_vector(to_unsigned(integer(real({A}) * 0.5 - 0.25), 5));", ""),
    ("a tri-state bus", "a[0] ? a : b",
     "t <= a when a(0) = '1' else (others => 'Z'); t <= b when a(0) = '0' else (others => 'Z'); y <= t;", BUS),
    ("an array of two dimensions", "a[0] ? (b[0] ? 3 : 2) : (b[0] ? 1 : 0)",
     'y <= TABLE(to_integer(unsigned(a(0 downto 0))), to_integer(unsigned(b(0 downto 0))));',
     'constant TABLE : square := (("00000", "00001"), ("00010", "00011"));'),
    ("a shared variable", "a & b",
     "process (all) begin v := a and b; y <= v; end process;", "shared variable v : std_logic_vector(4 downto 0);"),
]  # fmt: skip
ROUNDS = 3


def prepared(formula: str) -> Expectation:
    loaded = open_spec("s.toml", SPEC.format(formula).encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    return loaded.expectation


def measured(expectation: Expectation, text: str) -> tuple[float, str, str]:
    """The least processor time of some rounds in seconds, the engine, and what was said."""
    best, engine, verdict = 1e9, "", ""
    for _ in range(ROUNDS):
        start = time.process_time()
        checked = check_handin(expectation, [HandinFile("m.vhd", text.encode())])
        best = min(best, time.process_time() - start)
        engine = checked.engine
        verdict = "".join(sorted(set(checked.verdict.cells()))) if checked.verdict else checked.status
        if best > 1:
            break
    return best, engine, verdict


def main() -> None:
    ordinary = 0.0
    ratios = []
    for kind, formula, body, declared in KINDS:
        took, engine, verdict = measured(prepared(formula), HEAD.format(body=body, declared=declared))
        ordinary = ordinary or took
        ratios.append(took / ordinary)
        print(f"{kind:58} {took / ordinary:8.1f}   {took * 1000:8.1f} ms   {engine:12} {verdict}")
    ratios.sort()
    print(f"middle {ratios[len(ratios) // 2]:.1f}, worst {ratios[-1]:.1f}")


if __name__ == "__main__":
    main()
