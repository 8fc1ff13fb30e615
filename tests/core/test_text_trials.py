"""Changes that only the text shows: sizes, constants, what was forgotten."""

from __future__ import annotations

import pytest

from obento.core.check.check import open_spec
from obento.core.check.mutation.smallest_change import Change, find_repair
from obento.core.handin import HandinFile
from tests.core.clocked import COUNTER, VERILOG, VHDL, clocked, ready

HEAD = 'obento = "spec/1"\nunit = "m"\n[ports]\n'
SUM = HEAD + 'in = "a[3]:dec b[3]:dec"\nout = "y[4]:dec"\n[expect]\nequations = "y = a + b"\n'
LEVELS = HEAD + (
    'in = "a[2]"\nout = "y[3]"\n[expect]\ntable = """\na  | y\n00 | 001\n01 | 010\n10 | 100\n11 | 110\n"""\n'
)
LATCHED = HEAD + 'in = "a b"\nout = "y"\n[expect]\nequations = "y = a & b"\n'
LIBRARY = "library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;\n"
ADDER = (
    "module m(input [2:0] a, b, output [3:0] y);\n  wire [{top}:0] s;\n"
    "  assign s = a + b;\n  assign y = s;\nendmodule\n"
)
VHDL_ADDER = (
    LIBRARY + "entity m is port (a, b : in std_logic_vector(2 downto 0); y : out std_logic_vector(3 downto 0)); end;\n"
    "architecture r of m is signal s : unsigned({top} downto 0); begin\n"
    "  s <= resize(unsigned(a), s'length) + unsigned(b);\n  y <= std_logic_vector(resize(s, 4));\nend;\n"
)
NAMED = (
    "module m(input [1:0] a, output reg [2:0] y);\n  localparam LOW = 3'b001, HIGH = 3'b{high};\n  always @* case (a)\n"
    "    0: y = LOW; 1: y = 3'b010; 2: y = HIGH; default: y = HIGH | 3'b010;\n  endcase\nendmodule\n"
)
SELECTED = (
    LIBRARY + "entity m is port (a : in std_logic_vector(1 downto 0); y : out std_logic_vector(2 downto 0)); end;\n"
    'architecture r of m is begin\n  with a select y <= "001" when "00", "{mid}" when "01", "100" when "10", "110" when'
    " others;\nend;\n"
)


def changes(spec: str, text: str, name: str = "m.v") -> list[tuple[int, str]]:
    expectation = open_spec("s.toml", spec.encode(), {}).expectation
    assert expectation is not None
    return said(find_repair(expectation, [HandinFile(name, text.encode())], [], {}))


def said(repair: object) -> list[tuple[int, str]]:
    found: list[Change] = getattr(repair, "changes", [])
    return [(c.line, c.text) for c in found]


@pytest.mark.parametrize(
    ("spec", "text", "name", "line", "words"),
    [
        (SUM, ADDER.format(top=2), "m.v", 2, "`[3:0]` for `[2:0]`"),
        (SUM, VHDL_ADDER.format(top=2), "m.vhd", 3, "`(3 downto 0)` for `(2 downto 0)`"),
        (LEVELS, NAMED.format(high="101"), "m.v", 2, "`3'b100` for `3'b101`"),
        (LEVELS, SELECTED.format(mid="011"), "m.vhd", 4, '`"010"` for `"011"`'),
    ],
)
def test_sizes_and_constants(spec: str, text: str, name: str, line: int, words: str) -> None:
    assert changes(spec, text, name)[0] == (line, words)


@pytest.mark.parametrize(
    ("spec", "text"),
    [(SUM, ADDER.format(top=3)), (LEVELS, NAMED.format(high="100")), (LEVELS, SELECTED.format(mid="010"))],
)
def test_nothing_is_changed_in_what_is_right(spec: str, text: str) -> None:
    assert changes(spec, text, "m.vhd" if "library" in text else "m.v") == []


@pytest.mark.parametrize(
    ("text", "name", "line", "words"),
    [
        (VERILOG.replace("else if (en)", "else"), "m.v", 4, "`else if (en)` for `else`"),
        (
            VHDL.replace("elsif rising_edge(clk) then if en = '1' then n <= n + 1; end if;",
                         "elsif rising_edge(clk) then\n  if en = '0' then n <= n;\n  else n <= n + 1; end if;")
            .replace("if en = '0' then n <= n;", "if rst = '1' then n <= n;"),
            "m.vhd", 8, "`elsif en = '1' then` for `else`",
        ),
    ],
)  # fmt: skip
def test_a_condition_that_was_forgotten(text: str, name: str, line: int, words: str) -> None:
    found = find_repair(ready(clocked(COUNTER)), [HandinFile(name, text.encode())], [], {})
    assert said(found)[0] == (line, words)


@pytest.mark.parametrize(
    ("body", "line", "words"),
    [
        ("always @* if (a)\n  y = b;", 3, "`else y = 0;` behind this `if`"),
        ("always @* case ({a, b})\n  2'b11: y = 1;\nendcase", 4, "`default: y = 0;` in this `case`"),
    ],
)
def test_a_branch_that_was_forgotten(body: str, line: int, words: str) -> None:
    text = f"module m(input a, b, output reg y);\n{body}\nendmodule\n"
    assert changes(LATCHED, text)[0] == (line, words)


def test_a_branch_that_was_forgotten_in_vhdl() -> None:
    text = (
        LIBRARY + "entity m is port (a, b : in std_logic; y : out std_logic); end;\narchitecture r of m is begin\n"
        "  process (all) begin\n    if a = '1' then\n      y <= b;\n    end if;\n  end process;\nend;\n"
    )
    assert changes(LATCHED, text, "m.vhd")[0] == (7, "`else y <= '0';` in this `if`")
