"""What cannot run in lanes is run one by one: from a fresh power-up for every case and every neighbour, as far as the
time reaches."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from itertools import count

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked
from obento.core.check.running import case_by_case
from obento.core.check.running.binding import bind_ports
from obento.core.check.running.case_by_case import Wires, observe_case_by_case
from obento.core.check.running.observation import Observation
from obento.core.handin import HandinFile, read_handin
from obento.core.ir.design import Design
from obento.core.ir.part import RunError
from obento.core.limits import Limits
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.values import Word

WIDTH = 3
LIMITS = Limits(deltas=100, time_steps=100, loop_rounds_alone=500)
SPEC = "obento='spec/1'\nunit='m'\n[ports]\nin='a[3]'\nout='y[3]'\n[expect]\nequations='y = {}'\n"


def expected(formula: str = "a") -> Expectation:
    found = open_spec("s.toml", SPEC.format(formula).encode(), {}).expectation
    assert found is not None
    return found


def module(body: str) -> HandinFile:
    return HandinFile("a.v", f"module m(input [2:0] a, output [2:0] y); {body} endmodule".encode())


def design(body: str) -> Design:
    reading = read_handin([module(body), HandinFile("n.txt", b"5 4 7 6 1 0 3 2")], LIMITS)
    found = reading.elaborate("m")
    assert found is not None, [str(m) for m in reading.messages()]
    return found


def observed(built: Design, limits: Limits = LIMITS) -> Observation:
    expectation = expected()
    binding = bind_ports(expectation.spec, built)
    assert not binding.problems
    first, last = built.port("a").signal.offset, built.port("y").signal.offset
    wires = Wires(
        [first + i for i in range(WIDTH)], [f"a[{i}]" for i in range(WIDTH)], [], {("y", i): last + i for i in range(3)}
    )
    return observe_case_by_case(built, wires, expectation.cases, limits)


def fresh(built: Design, *inputs: int) -> Word | None:
    """A timeline of its own for one way, given as numbers of cases; None where it does not come to rest."""
    timeline = Timeline(built, LIMITS)
    try:
        timeline.power_up()
        for number in inputs:
            timeline.apply({"a": (number, 7 ^ number)})
    except (DidNotSettle, RunError):
        return None
    return timeline.value("y")


BODIES = [
    "assign #2 y = a;",
    "reg [2:0] q; always @(a) if (a[0]) q <= a; assign #1 y = q;",
    "reg [2:0] q; initial q = 5; always @(a[1]) #0 q = q + a; assign y = q;",
    "reg [2:0] q; initial #3 q = 2; always @(posedge a[0]) q = a; assign y = q;",
    "reg [2:0] q; initial q = 0; always @(a) q = q + 1; assign y = q;",
    "real r; always @(a) r = a * 1.5; reg [2:0] q; always @(r) q = r; assign y = q;",
    "real r; initial r = 0.25; always @(a) r = r + a; assign y = r;",
    "reg [2:0] m [0:3]; always @(a) m[a[1:0]] = a; assign #1 y = m[a[2:1]];",
    "reg [2:0] q; always @(a) q = $random; assign y = q;",
    "integer s; initial s = 7; reg [2:0] q; always @(a) q = $random(s); assign y = q;",
    'reg [2:0] q; integer f, n; initial f = $fopen("n.txt"); always @(a) n = $fscanf(f, "%d", q); assign y = q;',
    'reg [2:0] q; integer f, n; initial f=$fopen("n.txt","r"); always @(a) n = $fscanf(f, "%d", q); assign y = q;',
    "wire #1 p = ~(a[0] & q), q = ~(a[1] & p); assign y = {p, q, a[2]};",
    "wire n; assign #1 n = a[0] ? ~n : a[1]; assign y = {2'b0, n};",
    "reg [2:0] q; always begin @(a) q = a; #2 q = ~a; end assign y = q;",
    "reg [2:0] q; always @(a) begin force q = a; if (a[0]) release q; end assign y = q;",
    "reg [2:0] q; event e; always @(a) -> e; always @(e) q = a; assign y = q;",
    "time t; reg [2:0] q; always @(a) begin #1 t = $time; q = t; end assign y = q;",
    "reg [2:0] q; always @(a) q = $time + a; assign #3 y = q;",
    "reg [2:0] q; always @(a) q <= #2 a; assign y = q;",
    "trireg [2:0] t; assign t = a[0] ? a : 3'bz; assign y = t;",
]  # fmt: skip


N = "to_integer(unsigned(a))"
OUT = "y <= std_logic_vector(to_unsigned(n mod 8, 3));"
VHDL = [
    # declarations of the architecture, statements
    ("", "y <= a after 2 ns;"),
    ("", f"process (a) variable n : natural := 5; begin n := n + {N}; {OUT} end process;"),
    ("", f"process (a) variable n : natural; begin n := abs (7 / (3 - {N})); {OUT} end process;"),
    ("", f"process (a) variable n : integer range 0 to 20; begin n := n + {N}; {OUT} end process;"),
    ("", f"process (a(0)) variable n : natural; begin n := n + 1; {OUT} end process;"),
    ("", "process (a) begin if a(2)'event then y <= a'last_value; else y <= a; end if; end process;"),
    ("", "process (a) begin if a'last_event > 0 ns then y <= a; else y <= \"111\"; end if; end process;"),
    ("signal q : std_logic_vector(2 downto 0);",
     "process (a) begin if rising_edge(a(0)) then q <= a; end if; end process; y <= q after 1 ns;"),
    ("signal p, q : std_logic := '0';", "p <= a(0) nand q after 1 ns; q <= a(1) nand p after 1 ns; y <= p & q & a(2);"),
    ("signal n : std_logic;", "n <= not n after 1 ns when a = \"011\" else a(0); y <= n & n & n;"),
    ("signal b : std_logic_vector(2 downto 0);",
     "b <= a when a(0) = '1' else \"ZZZ\"; b <= \"101\" when a(1) = '1' else \"ZZZ\"; y <= b;"),
    ("signal b : std_logic;", "b <= 'H'; b <= a(0) when a(1) = '1' else 'Z'; y <= a(2 downto 1) & to_x01(b);"),
    ("type pair is record p : std_logic; q : natural; end record; signal r : pair;",
     "process (a) begin r.p <= a(0); r.q <= r.q + 1; end process;"
     f" process (r) variable n : natural; begin n := r.q; {OUT} end process;"),
    ("", f"process (a) variable n : natural; procedure more is begin n := n + {N}; end;"
     f" begin more; {OUT} end process;"),
    ("shared variable n : natural := 1;", f"process (a) begin n := n + {N}; {OUT} end process;"),
    ("type link is access natural;",
     "process (a) variable p : link := new natural'(1); variable n : natural;"
     f" begin p.all := p.all + {N}; n := p.all; {OUT} end process;"),
    ("", f"process variable n : natural := 0; begin n := n + {N}; {OUT} wait on a; end process;"),
    ("signal d : std_logic_vector(2 downto 0);", "d <= a'delayed(1 ns); y <= d xor a;"),
    ("signal c : natural := 0;",
     f"process (a'transaction) variable n : natural; begin n := c; {OUT} c <= c + 1; end process;"),
    ("", "g: block (a(0) = '1') begin y <= guarded a; end block;"),
    ("", "process (a) begin y <= transport a after 3 ns;"
     " if a(1) = '1' then y <= \"000\" after 1 ns, a after 2 ns; end if; end process;"),
    ("signal q : std_logic_vector(2 downto 0);",
     "q <= a when a(0) = '1';"
     " process (q) begin for i in q'range loop y(i) <= q(i) after 1 ns * i; end loop; end process;"),
    ("function up(v : std_logic_vector) return natural is variable n : natural := 0; begin for i in v'range loop"
     " if v(i) = '1' then n := n + 1; end if; end loop; return n; end;",
     f"process (a) variable n, last : natural; begin n := up(a) + last; last := up(a); {OUT} end process;"),
]  # fmt: skip


def entity(declared: str, body: str) -> Design:
    """A unit of VHDL with the ports of the modules above."""
    text = (
        "library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all; entity m is port (a : in"
        " std_logic_vector(2 downto 0); y : out std_logic_vector(2 downto 0)); end;"
        f" architecture r of m is {declared} begin {body} end;"
    )
    reading = read_handin([HandinFile("a.vhd", text.encode())], LIMITS)
    found = reading.elaborate("m")
    assert found is not None, [str(m) for m in reading.messages()]
    return found


@pytest.mark.parametrize(("declared", "body"), VHDL)
def test_coming_back_in_vhdl_is_as_good_as_beginning_anew(declared: str, body: str) -> None:
    as_if_begun_anew(entity(declared, body))


@pytest.mark.parametrize("body", BODIES)
def test_coming_back_is_as_good_as_beginning_anew(body: str) -> None:
    as_if_begun_anew(design(body))


def as_if_begun_anew(built: Design) -> None:
    """Every run of every case ends as one on a timeline of its own does."""
    found = observed(built)
    for number, run in enumerate(found.runs):
        for case in range(8):
            if number and fresh(built, case ^ 1 << number - 1) is None:
                continue
            word = fresh(built, case) if not number else fresh(built, case ^ 1 << number - 1, case)
            assert run.stopped >> case & 1 == (word is None), (run.name, case)
            if word is not None:
                for i in range(3):
                    digit = run.outputs["y", i]
                    assert (digit[0] >> case & 1, digit[1] >> case & 1) == (word[0] >> i & 1, word[1] >> i & 1)


def test_states_that_are_not_kept_are_reached_again(monkeypatch: pytest.MonkeyPatch) -> None:
    built = design(BODIES[1])
    wanted = [run.outputs for run in observed(built).runs]
    monkeypatch.setattr(case_by_case, "_MOST_WORDS", 1)
    assert [run.outputs for run in observed(built).runs] == wanted


def after(calls: int) -> Callable[[], bool]:
    """Says that the time is up after so many questions."""
    asked = count()
    return lambda: next(asked) >= calls


def checked(body: str, limits: Limits = LIMITS, formula: str = "a") -> Checked:
    return check_handin(expected(formula), [module(body)], (), limits)


def test_what_was_judged_when_the_time_was_up_stays_judged() -> None:
    found = checked(BODIES[5], replace(LIMITS, expired=after(5)))
    assert found.verdict is not None and found.status == "stopped"  # so that the mark waits for a person
    assert found.verdict.cells()[5:] == "sss" and "s" not in found.verdict.cells()[:5]
    assert found.verdict.unjudged == 0b11100000
    right = found.verdict.right.bit_count()
    said = f"the time for one hand-in was up after 5 of 8 cases: {right} of them are right, the others were not run"
    assert any(m.text == said and m.severity == "error" for m in found.messages) and not found.findings


def test_time_that_suffices_changes_nothing() -> None:
    found = checked(BODIES[0], replace(LIMITS, expired=after(10_000)))
    assert found.status == "checked" and found.verdict is not None and found.verdict.cells() == "p" * 8


def test_a_loop_without_end_is_wrong_where_it_is_entered() -> None:
    text = "module m(input [2:0] a, output reg [2:0] y); always @(a) begin y = a; while (a == 5) y = a; end endmodule"
    found = check_handin(expected(), [HandinFile("a.v", text.encode())], (), LIMITS)
    assert found.status == "checked" and found.verdict is not None
    assert found.verdict.cells() == "pppppspp" and not found.verdict.unjudged
    assert [f.text for f in found.findings] == [
        "this loop ran more than 500 rounds without time passing: the run ends there whenever a = 101: 1 of 8"
    ]
    assert found.findings[0].line == 1


def test_a_loop_without_end_in_every_case_is_tried_in_a_few() -> None:
    loaded = open_spec(
        "s.toml", b"obento='spec/1'\nunit='m'\n[ports]\nin='a[10]'\nout='y'\n[expect]\nequations='y = a[0]'\n", {}
    )
    assert loaded.expectation is not None
    text = "module m(input [9:0] a, output reg y); always @(a) begin y = 0; while (y === 0) y = 0; end endmodule"
    found = check_handin(loaded.expectation, [HandinFile("a.v", text.encode())], (), LIMITS)
    assert found.status == "checked" and found.verdict is not None
    assert found.verdict.cells() == "s" * 1024
    assert "comes to no end in any of 16 cases spread over all: the others were not run" in [
        f.text for f in found.findings
    ]


def test_a_function_that_calls_itself_for_ever() -> None:
    body = "function [2:0] f(input [2:0] v); f = v > 3 ? f(v) : v; endfunction assign y = f(a);"
    found = checked(body)
    assert found.verdict is not None and found.verdict.cells() == "ppppssss"
    assert found.findings[0].text.startswith("calls nest deeper than 64: the run ends there whenever a is at least 100")


def test_a_run_one_by_one_of_many_cases_is_told() -> None:
    loaded = open_spec(
        "s.toml", b"obento='spec/1'\nunit='m'\n[ports]\nin='a[9]'\nout='y'\n[expect]\nequations='y = a[0]'\n", {}
    )
    assert loaded.expectation is not None
    text = "module m(input [8:0] a, output reg y); real r; always @(a) begin r = a[0]; y = r; end endmodule"
    found = check_handin(loaded.expectation, [HandinFile("a.v", text.encode())], (), LIMITS)
    assert found.verdict is not None and found.verdict.cells() == "p" * 512
    (note,) = [m for m in found.messages if m.code == "one-by-one"]
    assert note.text == "the cases were run one by one, not all at once: `m.r` needs a single line of time"


CLOCKED = """obento='spec/1'
unit='m'
[ports]
in='clk d'
out='q'
[clock]
port='clk'
edge='rise'
[expect]
steps='''
clk d | q
c   0 | 0
c   1 | 1
c   0 | 0
---
c   1 | 1
c   0 | 0
'''
"""


def clocked(body: str, limits: Limits = LIMITS) -> Checked:
    loaded = open_spec("s.toml", CLOCKED.encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    text = f"module m(input clk, d, output reg q); {body} endmodule"
    return check_handin(loaded.expectation, [HandinFile("a.v", text.encode())], (), limits)


def test_sequences_that_were_played_stay_judged() -> None:
    assert clocked("always @(posedge clk) q <= d;").verdict.cells() == "ppppp"  # type: ignore[union-attr]
    found = clocked("always @(posedge clk) q <= d;", replace(LIMITS, expired=after(1)))
    assert found.status == "stopped" and found.verdict is not None and found.verdict.cells() == "pppss"


def test_a_loop_without_end_ends_its_sequence_only() -> None:
    found = clocked("reg p; always @(posedge clk) begin q <= d; while (d && q === 0) p = 1; end")
    assert found.status == "checked" and found.verdict is not None and found.verdict.cells() == "psspp"
