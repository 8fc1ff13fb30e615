"""Clocked specs and hand-ins for the tests: one counter in three languages, and texts around it."""

from __future__ import annotations

from obento.core.check.check import LoadedSpec, check_handin, open_spec
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile
from obento.core.spec.model import SpecPort

HEAD = 'obento = "spec/1"\nunit = "m"\n[ports]\nin = "{i}"\nout = "{o}"\n'
CLOCK = '[clock]\nport = "clk"\nedge = "{edge}"\n'
RESET = '[reset]\nport = "rst"\nactive = {active}\nkind = "{kind}"\n'


def clocked(
    expect: str,
    i: str = "clk rst en",
    o: str = "q[2]:dec",
    edge: str = "rise",
    active: int = 1,
    kind: str = "async",
    rest: str = "",
    **others: bytes,
) -> LoadedSpec:
    """A spec with a clock and a reset; `expect` is the body of [expect]."""
    text = (
        HEAD.format(i=i, o=o)
        + CLOCK.format(edge=edge)
        + RESET.format(active=active, kind=kind)
        + f"[expect]\n{expect}\n{rest}"
    )
    return open_spec("s.toml", text.encode(), {k.replace("_", "."): data for k, data in others.items()})


def ready(loaded: LoadedSpec) -> Expectation:
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    return loaded.expectation


def steps(rows: str) -> str:
    return f"steps = '''\n{rows}\n'''"


COUNTER = "function = '''\nclk rst en | q\n-   1   -  | 0\nr   0   1  | q+1\nr   0   0  | =\n'''"
SYNC_COUNTER = COUNTER.replace("-   1", "r   1")

VERILOG = (
    "module m(input clk, rst, en, output reg [1:0] q);\n  always @(posedge clk or posedge rst)\n    if (rst) q <= 0;\n "
    "   else if (en) q <= q + 1;\nendmodule\n"
)
VHDL = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (clk, rst, en : in std_logic; q : out std_logic_vector(1 downto 0)); end;
architecture a of m is signal n : unsigned(1 downto 0); begin
  process (clk, rst) begin
    if rst = '1' then n <= "00";
    elsif rising_edge(clk) then if en = '1' then n <= n + 1; end if; end if;
  end process;
  q <= std_logic_vector(n);
end;
"""
WIRING = """wiring m
  takes clk, rst, en
  gives q[2]
  n1 <- xor(q[1], and(q[0], en))
  q <- flipflop({n1, xor(q[0], en)}, rise: clk, clear: rst)
end
"""
LANGUAGES = {"a.v": VERILOG, "a.vhd": VHDL, "a.wiring": WIRING}


def judge(expectation: Expectation, text: str, name: str = "a.v") -> Checked:
    return check_handin(expectation, [HandinFile(name, text.encode())])


def cells(c: Checked) -> str:
    assert c.verdict is not None, [str(m) for m in c.messages]
    return c.verdict.cells()


def column(expectation: Expectation, port: SpecPort | None = None) -> list[str]:
    """What is expected of an output, step by step."""
    port = port or expectation.spec.outputs[0]
    return [port.show(*expected_word(expectation, port.name, port.width, i)) for i in range(expectation.cases.count)]
