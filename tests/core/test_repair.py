"""The smallest change that makes every case right: seeded mistakes, and what must be said to mend them."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.mutation.smallest_change import Repair, find_repair
from obento.core.handin import HandinFile
from tests.core.clocked import COUNTER, VERILOG, VHDL, WIRING, clocked, ready

SPEC = (
    "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a b c d[3]'\nout = 'y z'\n[expect]\nequations = '''\ny = (a & b) |"
    " !c\nz = d > 2\n'''\n"
)
PLAIN = (
    "module m(input a, b, c, input [2:0] d, output y, z);\n  assign y = (a & b) | ~c;\n  assign z = d > 2;\nendmodule\n"
)
PROCESS = (
    "module m(input a, b, c, input [2:0] d, output reg y, z);\n  always @* begin\n    y = ~c;\n    if (a & b) y = 1;\n "
    "   z = 0;\n    if (2 < d) z = 1;\n  end\nendmodule\n"
)
GATES = (
    "module m(input a, b, c, input [2:0] d, output y, z);\n  wire t, n, k;\n  and g1(t, a, b);\n  not g2(n, c);\n  or"
    " g3(y, t, n);\n  and g4(k, d[0], d[1]);\n  or g5(z, d[2], k);\nendmodule\n"
)
LIST = (
    "wiring m\n  takes a, b, c, d[3]\n  gives y, z\n  t <- and(a, b)\n  y <- or(t, not(c))\n  k <- and(d[0], d[1])\n  z"
    " <- or(d[2], k)\nend\n"
)
ENTITY = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (a, b, c : in std_logic; d : in std_logic_vector(2 downto 0); y, z : out std_logic); end;
architecture r of m is begin
  y <= (a and b) or not c;
  z <= d(2) or (d(1) and d(0));
end;
"""


@pytest.fixture(scope="module")
def plain() -> Expectation:
    return ready(open_spec("s.toml", SPEC.encode(), {}))


def repaired(expectation: Expectation, text: str, name: str) -> Repair:
    found = find_repair(expectation, [HandinFile(name, text.encode())], (), {})
    assert found is not None
    return found


SEEDED = [
    ("a.v", PLAIN, "a & b", "a | b", 2, "`&` for `|`"),
    ("a.v", PLAIN, "| ~c", "| c", 2, "`~` before `c`"),
    ("a.v", PLAIN, "(a & b)", "(a & ~b)", 2, "no `~` before `b`"),
    ("a.v", PLAIN, "d > 2", "d > 3", 3, "2 for 3"),
    ("a.v", PLAIN, "d > 2", "d >= 2", 3, "`>` for `>=`"),
    ("a.v", PLAIN, "a & b", "a & c", 2, "`b` for `c`"),
    ("a.v", PROCESS, "y = 1", "y = 0", 4, "1 for 0"),
    ("a.v", PROCESS, "a & b", "a ^ b", 4, "`&` for `^`"),
    ("a.v", PLAIN, "assign y = (a & b) | ~c;", "wire n = a || b; assign y = n | ~c;", 2, "`&&` for `||`"),
    ("a.v", GATES, "and g1", "nand g1", 3, "gate `and` for `nand`"),
    ("a.v", GATES, "or g3", "xor g3", 5, "gate `or` for `xor`"),
    ("a.v", GATES, "d[0], d[1])", "a, d[1])", 6, None),
    ("a.wiring", LIST, "and(a, b)", "or(a, b)", 4, "gate `and` for `or`"),
    ("a.wiring", LIST, "not(c)", "c", 5, "`!` before `c`"),
    ("a.vhd", ENTITY, "(a and b)", "(a or b)", 4, "`and` for `or`"),
]  # fmt: skip


@pytest.mark.parametrize(("name", "text", "right", "wrong", "line", "change"), SEEDED)
def test_a_seeded_mistake_is_found(
    plain: Expectation, name: str, text: str, right: str, wrong: str, line: int, change: str | None
) -> None:
    assert check_handin(plain, [HandinFile(name, text.encode())]).findings == []
    seeded = text.replace(right, wrong, 1)
    assert seeded != text
    found = repaired(plain, seeded, name)
    if change is None:
        assert all(c.line == line for c in found.changes)
    else:
        assert (line, change) in [(c.line, c.text) for c in found.changes], found


CLOCKED = [
    ("a.v", VERILOG, "posedge clk", "negedge clk", 2, "`posedge clk` for `negedge clk`"),
    ("a.v", VERILOG, "q + 1", "q - 1", 4, "`+` for `-`"),
    ("a.wiring", WIRING, "rise: clk", "fall: clk", 5, "`rise: clk` for `fall: clk`"),
    ("a.wiring", WIRING, "xor(q[1]", "or(q[1]", 4, "gate `xor` for `or`"),
]


@pytest.mark.parametrize(("name", "text", "right", "wrong", "line", "change"), CLOCKED)
def test_clocked_ones_too(name: str, text: str, right: str, wrong: str, line: int, change: str) -> None:
    found = repaired(ready(clocked(COUNTER)), text.replace(right, wrong, 1), name)
    assert (line, change) in [(c.line, c.text) for c in found.changes], found


def test_nothing_is_claimed_that_is_not_right_everywhere(plain: Expectation) -> None:
    twice = PLAIN.replace("a & b", "a | b").replace("d > 2", "d > 3")
    found = repaired(plain, twice, "a.v")
    assert found.changes == [] and found.tried > 20 and found.is_whole
    right = repaired(plain, PLAIN, "a.v")
    assert right.changes == [] and right.tried == 0
    assert find_repair(plain, [HandinFile("a.v", b"module m(input a; endmodule")], (), {}) is None


def test_the_design_is_as_before_after_all_trials() -> None:
    expectation = ready(clocked(COUNTER))
    files = [HandinFile("a.vhd", VHDL.replace("falling", "rising").replace("n + 1", "n - 1").encode())]
    before = check_handin(expectation, files).verdict
    find_repair(expectation, files, (), {})
    after = check_handin(expectation, files).verdict
    assert before is not None and after is not None and before.cluster == after.cluster


def test_a_list_of_what_wakes_a_process_is_not_changed_along(plain: Expectation) -> None:
    """With `@*` the other wire is all that has to be written; with a list of its own the list would have to be changed
    too."""
    process = (
        "module m(input a, b, c, input [2:0] d, output reg y, output z);\n  always @({list})\n    y = (a & {wire}) |"
        " ~c;\n  assign z = d > 2;\nendmodule\n"
    )
    whole = repaired(plain, process.format(list="*", wire="c"), "a.v")
    assert [c.text for c in whole.changes] == ["`b` for `c`"] and whole.changes[0].line == 3
    assert repaired(plain, process.format(list="a or c", wire="c"), "a.v").changes == []


STATES = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (clk, rst, en : in std_logic; q : out std_logic_vector(1 downto 0)); end;
architecture a of m is signal n : unsigned(1 downto 0); begin
  process (clk, rst) begin
    if rst = '1' then
      n <= "00";
    elsif falling_edge(clk) then
      if en = '1' then n <= n + 1; end if;
    end if;
  end process;
  q <= std_logic_vector(n);
end;
"""


@pytest.mark.parametrize("sequences", [COUNTER, "steps = '''\nclk rst en | q\n- 1 0 | 0\nc 0 1 | 1\nc 0 1 | 2\n'''"])
def test_the_edge_of_a_vhdl_process_at_its_own_line(sequences: str) -> None:
    """Also where there are so few sequences that a check runs them one after the other."""
    expectation = ready(clocked(sequences.replace("- 1 0 |", ". 1 0 |")))
    found = repaired(expectation, STATES, "a.vhd")
    assert [(c.line, c.text) for c in found.changes] == [(7, "`rising_edge(clk)` for `falling_edge(clk)`")]


def test_a_hint_finds_the_same_changes_and_bounds_the_search(plain: Expectation) -> None:
    files = [HandinFile("m.v", PLAIN.replace("a & b", "a | b").encode())]
    alone = find_repair(plain, files, (), {})
    assert alone is not None and alone.changes
    hinted = find_repair(plain, files, (), {}, hints=[c.text for c in alone.changes])
    assert hinted is not None and hinted.changes == alone.changes and hinted.tried <= alone.tried
    assert find_repair(plain, files, (), {}, hints=["`|` for `&`, somewhere else"]) == alone
    wrong_elsewhere = [HandinFile("m.v", PLAIN.replace("| ~c", "| c").encode())]
    found = find_repair(plain, wrong_elsewhere, (), {}, hints=[c.text for c in alone.changes])
    assert found is not None and found.changes and found.changes[0].text == "`~` before `c`"
