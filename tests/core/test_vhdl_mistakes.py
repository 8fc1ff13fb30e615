"""What people get wrong in VHDL: each mistake is told where it was made, once, with a stable code."""

from __future__ import annotations

import pytest

from obento.core.check.explaining.advice import advise
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits

HEAD = """library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
"""
ENTITY = """entity m is
  port (a, b, clk : in std_logic; v : in std_logic_vector(3 downto 0);
        y : out std_logic; w : out std_logic_vector(3 downto 0));
end entity;
"""
INNER = """library ieee;
use ieee.std_logic_1164.all;
entity n is port (p : in std_logic; q : out std_logic); end;
architecture r of n is begin q <= p; end;
"""


def whole(body: str, declarations: str = "") -> str:
    """An architecture; its first statement is at line 10 without declarations."""
    return f"{HEAD}{ENTITY}architecture rtl of m is\n{declarations}begin\n{body}\nend architecture;\n"


def process(body: str, declarations: str = "", wakes: str = "(a, b, v)") -> str:
    """A process; its first statement is at line 12 without declarations."""
    return whole(f"  process {wakes}\n{declarations}  begin\n{body}\n  end process;")


MISTAKES = [
    ("missing semi", whole("  y <= a and b\n  w <= v;"), ["10:15 error missing-semicolon"]),
    ("missing semi in process", process("    y <= a\n    w <= v;"), ["12:11 error missing-semicolon"]),
    (
        "missing semi port",
        HEAD + "entity m is\n  port (a : in std_logic\n        y : out std_logic);\nend entity;\narchitecture r of m is"
        " begin y <= a; end;\n",
        ["5:25 error missing-semicolon"],
    ),
    (
        "extra semi port",
        HEAD
        + "entity m is\n  port (a : in std_logic;\n        y : out std_logic;);\nend entity;\narchitecture r of m is"
        " begin y <= a; end;\n",
        ["6:26 error extra-semicolon"],
    ),
    ("signal colon", process("    y := a;"), ["12:5 error signal-sign"]),
    (
        "variable arrow",
        process("    t <= a;\n    y <= t;", "    variable t : std_logic;\n"),
        ["13:5 error variable-sign"],
    ),
    ("missing endif", process("    if a = '1' then\n      y <= b;\n"), ["13:14 error missing-end"]),
    ("missing then", process("    if a = '1'\n      y <= b;\n    end if;"), ["12:15 error missing-then"]),
    (
        "missing library",
        (
            "entity m is\n  port (a : in std_logic; y : out std_logic);\nend entity;\narchitecture r of m is begin y <="
            " a; end;\n"
        ),
        ["2:16 error undeclared"],
    ),
    (
        "missing numeric",
        "library ieee;\nuse ieee.std_logic_1164.all;\n"
        + ENTITY
        + "architecture r of m is begin\n  w <= std_logic_vector(unsigned(v) + 1);\nend;\n",
        ["8:25 error undeclared"],
    ),
    ("slv plus", whole("  w <= v + 1;"), ["10:8 error operator"]),
    ("type mismatch", whole("  y <= v;"), ["10:8 error type"]),
    ("type mismatch2", whole("  w <= a;"), ["10:8 error type"]),
    ("int to slv", whole("  w <= 3;"), ["10:8 error type"]),
    ("wrong width", whole("  w <= v(2 downto 0);"), ["10:8 error width"]),
    ("wrong width lit", whole('  w <= "01010";'), ["10:8 error width"]),
    ("port not in entity", whole("  u1 : entity work.n port map (p => a, z => y);") + INNER, ["10:40 error port"]),
    (
        "missing others",
        process("    case v is\n      when \"0000\" => y <= '0';\n      when \"0001\" => y <= '1';\n    end case;"),
        ["12:5 error not-covered"],
    ),
    (
        "reserved",
        HEAD
        + "entity m is\n  port (in : in std_logic; y : out std_logic);\nend entity;\narchitecture r of m is begin y <="
        " '1'; end;\n",
        ["5:9 error reserved"],
    ),
    ("reserved2", whole("  y <= signal;"), ["10:7 error missing-value"]),
    ("verilog", "module m(input a, output y);\n  assign y = a;\nendmodule\n", ["1:1 warning wrong-suffix"]),
    ("undeclared", whole("  y <= c and b;"), ["10:8 error undeclared"]),
    ("undeclared near", whole("  tmp <= a;\n  y <= tpm;", "  signal tmp : std_logic;\n"), ["12:8 error undeclared"]),
    (
        "elseif",
        process("    if a = '1' then y <= b;\n    elseif b = '1' then y <= a;\n    end if;"),
        ["13:5 error foreign"],
    ),
    (
        "else if",
        process("    if a = '1' then y <= b;\n    else if b = '1' then y <= a;\n    end if;"),
        ["13:5 error else-if"],
    ),
    ("double equal", process("    if a == '1' then y <= b; end if;"), ["12:10 error foreign"]),
    ("assign input", whole("  a <= b;"), ["10:3 error input"]),
    ("no arch", HEAD + ENTITY, ["4:8 error no-architecture"]),
    ("if outside", whole("  if a = '1' then\n    y <= b;\n  end if;"), ["10:3 error misplaced"]),
    (
        "missing begin",
        HEAD + ENTITY + "architecture rtl of m is\n  signal t : std_logic;\n  y <= a;\nend architecture;\n",
        ["9:24 error missing-begin"],
    ),
    ("quote kind", whole('  y <= "1";'), ["10:8 error type"]),
    ("quote kind2", whole("  w <= '1';"), ["10:8 error type"]),
    (
        "end name",
        HEAD + ENTITY + "architecture rtl of m is\nbegin\n  y <= a;\nend architecture behave;\n",
        ["11:18 error end-name"],
    ),
    ("missing end process", whole("  process (a) begin\n    y <= a;\n"), ["11:12 error missing-end"]),
    (
        "two drivers",
        (
            "entity m is port (a, b : in bit; y : out bit); end;\narchitecture r of m is begin\n  y <= a;\n  y <="
            " b;\nend;\n"
        ),
        ["4:3 error two-drivers"],
    ),
    ("bool logic", process("    if a and b = '1' then y <= a; end if;"), ["12:8 error operator"]),
    ("wait in sens", process("    y <= a;\n    wait for 10 ns;"), ["13:5 error wait"]),
    (
        "range colon",
        HEAD
        + "entity m is\n  port (a : in std_logic_vector(3:0); y : out std_logic);\nend entity;\narchitecture r of m is"
        " begin y <= a(0); end;\n",
        ["5:34 error foreign"],
    ),
    ("out of range", whole("  y <= v(4);"), ["10:8 error out-of-range"]),
    ("slice direction", whole("  w(1 downto 0) <= v(0 to 1);"), ["10:20 error slice-direction"]),
    ("component missing", whole("  u1 : adder port map (a, b, y);"), ["10:8 error undeclared"]),
    (
        "unbound",
        whole(
            "  u1 : adder port map (a, b, y);",
            "  component adder port (p, q : in std_logic; z : out std_logic); end component;\n",
        ),
        ["11:8 error unbound"],
    ),
    (
        "comma ports",
        HEAD
        + "entity m is\n  port (a : in std_logic, y : out std_logic);\nend entity;\narchitecture r of m is begin y <="
        " a; end;\n",
        ["5:25 error comma"],
    ),
    ("missing paren", whole("  y <= (a and b;\n  w <= v;"), ["10:8 error missing"]),
    ("dup", whole("  y <= a;", "  signal t : std_logic;\n  signal t : std_logic;\n"), ["10:10 error redeclared"]),
    (
        "case width",
        process('    case v is\n      when "00" => y <= a;\n      when others => y <= b;\n    end case;'),
        ["13:12 error width"],
    ),
    ("wrong args", whole("  w <= std_logic_vector(to_unsigned(3));"), ["10:25 error no-call"]),
    (
        "to int slv",
        process("    n := to_integer(v);\n    y <= a;", "    variable n : integer;\n"),
        ["13:10 error no-call"],
    ),
    (
        "missing is",
        HEAD
        + "entity m\n  port (a : in std_logic; y : out std_logic);\nend entity;\narchitecture r of m is begin y <= a;"
        " end;\n",
        ["4:9 error missing", "7:14 error no-entity"],
    ),
    (
        "missing when",
        process('    case v is\n      "0000" => y <= a;\n      when others => y <= b;\n    end case;'),
        ["13:7 error missing"],
    ),
    ("int cmp", process("    if a = 1 then y <= b; end if;"), ["12:8 error operator"]),
    ("mixed", whole("  y <= a and b or clk;"), ["10:16 error mixed-logic"]),
    ("no time unit", process("    wait for 10;", "", ""), ["12:14 error unit"]),
    ("missing arch entity", HEAD + "architecture rtl of mm is\nbegin\nend;\n", ["4:14 error no-entity"]),
    (
        "typo kw",
        HEAD + ENTITY + "architecture rtl of m is\nbegin\n  proces (a)\n  begin\n    y <= a;\n  end process;\nend;\n",
        ["10:3 error unknown-word"],
    ),
    ("signal in process", process("    y <= a;", "    signal t : std_logic;\n"), ["11:5 error misplaced"]),
    (
        "func noreturn",
        whole("  y <= f(a);", "  function f(x : std_logic) return std_logic is\n  begin\n    null;\n  end function;\n"),
        ["9:3 error no-return"],
    ),
    ("arity", whole("  u1 : entity work.n port map (a, y, b);") + INNER, ["10:3 error port"]),
    (
        "port width",
        whole("  u1 : entity work.n port map (p => v(1 downto 0), q => y);")
        + "library ieee;\nuse ieee.std_logic_1164.all;\nentity n is port (p : in std_logic_vector(2 downto 0); q : out"
        " std_logic); end;\narchitecture r of n is begin q <= p(0); end;\n",
        ["10:37 error width"],
    ),
    ("latch", process("    if a = '1' then y <= b; end if;\n    w <= v;"), ["12:5 warning latch"]),
    ("sens", process("    y <= a and b and clk;\n    w <= v;"), ["12:22 warning sensitivity"]),
    ("never", whole("  y <= t;\n w <= v;", "  signal t : std_logic;\n"), ["9:10 warning never-assigned"]),
    ("unclosed str", whole('  y <= "1;'), ["10:8 error open-string"]),
    ("ops", whole("  y <= a & b;"), ["10:8 error type"]),
    ("plusplus", process("    n := n++;\n", "    variable n : integer;\n"), ["13:12 error missing-value"]),
    ("notequal", process("    if a != '1' then y <= b; end if;"), ["12:10 error foreign"]),
]


@pytest.mark.parametrize(("text", "expected"), [pytest.param(t, e, id=name) for name, t, e in MISTAKES])
def test_told_where_it_was_made(text: str, expected: list[str]) -> None:
    reading = read_handin([HandinFile("m.vhd", text.encode())], Limits())
    if "m" in reading.units and not reading.collector.errors:
        design = reading.elaborate("m")
        if design is not None:
            advise(design, Limits(), lambda code, text, at, hint: reading.collector.warning(code, text, at, None, hint))
    assert [f"{m.line}:{m.column} {m.severity} {m.code}" for m in reading.messages()] == expected
