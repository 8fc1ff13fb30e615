"""Seeded slips in right designs of all three languages, and the finding that each must get."""

from __future__ import annotations

import pytest

from obento.core.check.check import open_spec
from tests.core.clocked import CLOCK, COUNTER, HEAD, RESET, SYNC_COUNTER, VERILOG, VHDL, WIRING, clocked, judge, ready

SYNC_VERILOG = VERILOG.replace(" or posedge rst", "")
SYNC_VHDL = VHDL.replace(
    "    if rst = '1' then n <= \"00\";\n    elsif rising_edge(clk) then if",
    "    if rising_edge(clk) then if rst = '1' then n <= \"00\"; elsif",
)
MODULO = (
    COUNTER.replace("clk rst en |", "clk rst en q |")
    .replace("-   1   -  |", "-   1   -  - |")
    .replace("r   0   1  |", "r   0   1  2 | 0\nr   0   1  - |")
    .replace("r   0   0  |", "r   0   0  - |")
)
THREE = VERILOG.replace("q <= q + 1", "q <= q == 2 ? 0 : q + 1")
LATE = (
    VERILOG.replace("q <= q + 1;", "n <= n + 1;")
    .replace("q <= 0;", "n <= 0;")
    .replace("endmodule", "reg [1:0] n; always @(posedge clk) q <= n;\nendmodule")
)
PIPE = (
    "function = '''\nclk rst en a | a q\nr 1 - - | 0 0\nr 0 1 0 | 1 0\nr 0 1 1 | 1 1\nr 0 0 0 | 0 0\nr 0 0 1 | 0 1\n'''"
)
BLOCKING = (
    "module m(input clk, rst, en, output reg q);\n reg a;\n always @(posedge clk)\n  if (rst) begin a = 0; q = 0; end\n"
    "  else begin a = en; q = a; end\nendmodule\n"
)

ASYNC, SYNC = (COUNTER, "async"), (SYNC_COUNTER, "sync")
SLIPS = [
    ("wrong-edge", ASYNC, VERILOG.replace("posedge clk", "negedge clk"), "a.v"),
    ("wrong-edge", ASYNC, VHDL.replace("rising_edge", "falling_edge"), "a.vhd"),
    ("wrong-edge", ASYNC, WIRING.replace("rise:", "fall:"), "a.wiring"),
    ("reset-sync", ASYNC, SYNC_VERILOG, "a.v"),
    ("reset-sync", ASYNC, SYNC_VHDL, "a.vhd"),
    (
        "reset-sync",
        ASYNC,
        WIRING.replace(
            "flipflop({n1, xor(q[0], en)}, rise: clk, clear: rst)",
            "flipflop({and(n1, not(rst)), and(xor(q[0], en), not(rst))}, rise: clk)",
        ),
        "a.wiring",
    ),
    ("reset-async", SYNC, VERILOG, "a.v"),
    ("reset-async", SYNC, VHDL, "a.vhd"),
    ("reset-async", SYNC, WIRING, "a.wiring"),
    ("reset-level", ASYNC, VERILOG.replace("posedge rst", "negedge rst").replace("(rst)", "(!rst)"), "a.v"),
    ("reset-level", ASYNC, VHDL.replace("rst = '1'", "rst = '0'"), "a.vhd"),
    ("reset-level", ASYNC, WIRING.replace("clear:", "clear_low:"), "a.wiring"),
    ("ignores", ASYNC, VERILOG.replace("else if (en)", "else"), "a.v"),
    ("ignores", ASYNC, VHDL.replace("if en = '1' then n <= n + 1; end if;", "n <= n + 1;"), "a.vhd"),
    ("ignores", ASYNC, WIRING.replace("and(q[0], en)", "q[0]").replace("xor(q[0], en)", "not(q[0])"), "a.wiring"),
    ("counts-too-far", (MODULO, "async"), VERILOG, "a.v"),
    ("wraps-too-early", ASYNC, THREE, "a.v"),
]


@pytest.mark.parametrize(
    ("kind", "spec", "text", "name"), SLIPS, ids=[f"{kind}-{name[2:]}" for kind, _, _, name in SLIPS]
)
def test_a_slip_gets_its_name(kind: str, spec: tuple[str, str], text: str, name: str) -> None:
    checked = judge(ready(clocked(spec[0], kind=spec[1])), text, name)
    assert checked.verdict is not None and checked.verdict.right.bit_count() < checked.verdict.count
    assert checked.findings[0].kind == kind, [f.text for f in checked.findings]
    assert checked.findings[0].line > 0


def test_blocking_where_a_cycle_should_lie_between() -> None:
    text = (
        HEAD.format(i="clk rst en", o="q")
        + 'inner = "a"\n'
        + CLOCK.format(edge="rise")
        + RESET.format(active=1, kind="sync")
    )
    expectation = ready(open_spec("s.toml", f"{text}[expect]\n{PIPE}\n".encode(), {}))
    assert judge(expectation, BLOCKING.replace(" = ", " <= ")).findings == []
    found = judge(expectation, BLOCKING).findings
    assert found[0].kind == "blocking" and found[0].line > 0


def test_one_cycle_late() -> None:
    found = judge(ready(clocked(SYNC_COUNTER, kind="sync")), LATE.replace(" or posedge rst", "")).findings
    assert found[0].kind == "late" and found[0].text == "q is one cycle late"


def test_stuck_and_relied_on_start_values() -> None:
    stuck = VERILOG.replace("q <= q + 1", "q <= q == 2 ? 2 : q + 1")
    found = judge(ready(clocked(COUNTER)), stuck).findings
    assert found[0].kind == "stuck" and "2" in found[0].text
    rows = "steps = '''\nclk rst en | q\nc 0 1 | 1\nc 0 1 | 2\n. 1 0 | 0\n'''"
    checked = judge(
        ready(clocked(rows)),
        VERILOG.replace("output reg [1:0] q", "output [1:0] q")
        .replace(";\n  always", "; reg [1:0] n = 0; assign q = n;\n  always")
        .replace("q <= 0", "n <= 0")
        .replace("q <= q + 1", "n <= n + 1"),
    )
    assert checked.verdict is not None and checked.verdict.right == 7
    assert [m.text for m in checked.messages if m.code == "start-values"] == [
        "2 steps are right only because registers have initial values"
    ]


def test_start_values_relied_on_in_every_language() -> None:
    rows = "steps = '''\nclk rst en | q\nc 0 1 | 1\nc 0 1 | 2\n. 1 0 | 0\n'''"
    expectation = ready(clocked(rows))
    starting = {
        "a.vhd": VHDL.replace("signal n : unsigned(1 downto 0);", 'signal n : unsigned(1 downto 0) := "00";'),
        "a.sv": VERILOG.replace("output reg [1:0] q);", "output reg [1:0] q);\n  initial q = 0;"),
        "b.sv": (
            VERILOG.replace("output reg [1:0] q);", "output [1:0] q);\n  reg [1:0] n = 0; assign q = n;")
            .replace("q <= q + 1", "n <= n + 1")
            .replace("q <= 0", "n <= 0")
        ),
    }
    for name, text in starting.items():
        checked = judge(expectation, text, name)
        assert checked.verdict is not None and checked.verdict.right == 7, (name, [str(m) for m in checked.messages])
        told = [(m.text, m.line > 0) for m in checked.messages if m.code == "start-values"]
        assert told == [("2 steps are right only because registers have initial values", True)], name
    function = ready(clocked(COUNTER))  # nothing is compared before the reset: nothing is relied on
    for name, text in starting.items():
        again = judge(function, text, name)
        assert (
            again.verdict is not None
            and again.verdict.right == function.cases.full
            and not any(m.code == "start-values" for m in again.messages)
        )


def test_ripple_clocks_and_races_are_told() -> None:
    ripple = (
        "module m(input clk, rst, en, output reg [1:0] q);\n always @(posedge clk or posedge rst) if (rst) q[0] <= 0;"
        " else if (en) q[0] <= ~q[0];\n always @(negedge q[0] or posedge rst) if (rst) q[1] <= 0; else q[1] <="
        " ~q[1];\nendmodule\n"
    )
    checked = judge(ready(clocked(COUNTER)), ripple)
    assert (
        checked.verdict is not None and checked.verdict.right == (1 << checked.verdict.count) - 1
    )  # it settles to the same
    assert [(m.code, m.line) for m in checked.messages if m.severity == "warning"] == [("ripple-clock", 3)]
    race = (
        "module m(input clk, rst, en, output reg [1:0] q);\n reg [1:0] n;\n always @(posedge clk or posedge rst) if"
        " (rst) n = 0; else if (en) n = n + 1;\n always @(posedge clk or posedge rst) if (rst) q = 0; else q ="
        " n;\nendmodule\n"
    )
    assert "race" in [m.code for m in judge(ready(clocked(COUNTER)), race).messages]


def test_the_clock_is_found_under_its_usual_names() -> None:
    checked = judge(ready(clocked(COUNTER)), VERILOG.replace("clk", "clock"))
    assert checked.status == "checked" and ("clk", "clock", "near") in [
        (b.ours, b.theirs, b.how) for b in checked.binding
    ]
