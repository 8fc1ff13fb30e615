"""Clocked specs: what steps and function tables mean, and how hand-ins are judged by them. Expectations are worked out
by hand."""

from __future__ import annotations

import pytest

from obento.core.check.explaining.divergence import diverge
from obento.core.check.report import handin_report
from obento.core.planes import set_bits
from tests.core.clocked import (
    CLOCK,
    COUNTER,
    HEAD,
    LANGUAGES,
    SYNC_COUNTER,
    VERILOG,
    WIRING,
    cells,
    clocked,
    column,
    judge,
    ready,
    steps,
)


@pytest.mark.parametrize("name", LANGUAGES)
def test_a_step_sets_then_clocks_then_looks(name: str) -> None:
    rows = (
        "clk rst en | q\n.  1 0 | 0\nc 0 1 | 1\nc 0 1 | 2\n. 0 0 | 2\nr 0 1 | 3\n. 0 0 | 3\nf 0 1 | 3\nc 0 0 | 3\nc 0 1"
        " | 0\n. 1 1 | 0"
    )
    expectation = ready(clocked(steps(rows)))
    assert cells(judge(expectation, LANGUAGES[name], name)) == "p" * 10


def test_falling_edge_rests_high() -> None:
    rows = "clk rst en | q\n. 1 0 | 0\nc 0 1 | 1\nr 0 1 | 1\nf 0 1 | 2\n. 0 0 | 2\nr 0 1 | 2"
    expectation = ready(clocked(steps(rows), edge="fall"))
    assert cells(judge(expectation, VERILOG.replace("posedge clk", "negedge clk"))) == "pppppp"
    assert "f" in cells(judge(expectation, VERILOG))


def test_each_sequence_starts_from_power_up() -> None:
    rows = "clk rst en | q\n--- first\nc 1 0 | 0\nc 0 1 | 1\n--- second\nc 0 1 | x\nc 1 1 | 0\n---\n. 1 0 | 0"
    expectation = ready(clocked(steps(rows)))
    stimulus = expectation.cases.stimulus
    assert stimulus is not None and [(s.name, s.first, s.length) for s in stimulus.sequences] == [
        ("first", 0, 2),
        ("second", 2, 2),
        ("sequence 3", 4, 1),
    ]
    assert cells(judge(expectation, VERILOG)) == "ppppp"


def test_as_before_and_its_complement() -> None:
    rows = "clk rst en | q\n. 1 0 | 0\nc 0 0 | =\nc 0 1 | -\nc 0 0 | =\nc 0 0 | =\nc 0 1 | !\n. 0 1 | ="
    expectation = ready(clocked(steps(rows)))
    # 0, = 0, anything, as it was seen (1), as that, its complement (2 is 10, the complement of 01), as expected there
    assert cells(judge(expectation, VERILOG)) == "ppnpppp"
    skips = VERILOG.replace("q + 1", "q + 2")
    assert (
        cells(judge(expectation, skips)) == "ppnppff"
    )  # seen 2, its complement is 1; 0 is wrong, and what is expected stays 1


def test_open_inputs_must_be_right_both_ways() -> None:
    rows = "clk rst en | q\n. 1 - | 0\nc 0 0 | 0\nc 1 - | 0\nc 0 - | -\n. 1 - | 0"
    expectation = ready(clocked(steps(rows)))
    assert cells(judge(expectation, VERILOG)) == "pppnp"
    leaky = VERILOG.replace("q <= 0", "q <= en")  # right only while the open input is 0
    checked = judge(expectation, leaky)
    assert cells(checked) == "fffnf"  # after the first it keeps the 1
    assert checked.verdict is not None and checked.verdict.run_of(0) == "with - as 1"


def test_a_column_for_the_clock_or_reset_may_be_left_out() -> None:
    expectation = ready(clocked(steps("rst en | q\n1 0 | 0\n0 1 | 1\n0 1 | 2")))
    assert expectation.cases.stimulus is not None and expectation.cases.stimulus.actions == "ccc"
    assert cells(judge(expectation, VERILOG)) == "ppp"
    bare = ready(clocked(steps("clk rst en | q\nc10|0\nc01|1"), i="en"))
    assert [p.name for p in bare.spec.inputs] == ["clk", "rst", "en"]


def test_headers_again_and_commas() -> None:
    again = ready(clocked(steps("--- a\nclk rst en | q\n. 1 0 | 0\n--- b\nrst clk en | q\n1 . 0 | 0\n0 c 1 | 1")))
    assert (
        again.cases.stimulus is not None
        and again.cases.stimulus.actions == "..c"
        and cells(judge(again, VERILOG)) == "ppp"
    )
    comma = ready(clocked(steps("clk,rst,en,,q\n.,1,0,,0\nc,0,1,,1")))
    assert cells(judge(comma, VERILOG)) == "pp"
    beside = ready(clocked('steps = "s.csv"', s_csv=b"clk,rst,en,|,q\n.,1,0,|,0\nc,0,1,|,1\n---\n.,1,1,|,0\n"))
    assert cells(judge(beside, VERILOG)) == "ppp"


def test_the_clock_is_at_rest_before_anything_is_set() -> None:
    """An x that becomes 0 is a falling edge: it must not take the first inputs in."""
    falling = "module m(input clk, rst, en, output reg [1:0] q); always @(negedge clk) q <= rst ? 0 : 3; endmodule"
    checked = judge(ready(clocked(steps("clk rst en | q\n. 1 0 | 0\n. 0 0 | 0"))), falling)
    assert cells(checked) == "uu"


MISTAKES = [
    (steps("clk rst en | q\nq 0 0 | 0"), "16:1", "bad-clock"),
    (steps("clk rst en | q\nc 0 0 | ="), "16:9", "no-before"),
    (steps("clk rst en | q\nc 0 0 0 | 1"), "16:7", "row-length"),
    (steps("clk rst no | q\nc 0 0 | 1"), "15:9", "unknown-column"),
    (steps("clk rst en | q\nc 0 0 | 9"), "16:9", "bad-value"),
    (steps("clk rst en | q"), "15:1", "empty-table"),
    ("function = '''\nclk rst en | q\n- 0 1 | !\n'''", "16:1", "restless"),
    ("function = '''\nclk rst en | q\n- 0 1 | q+1\n'''", "16:9", "restless"),
    ("function = '''\nclk rst en | q\nr 0 1 | nix+1\n'''", "16:9", "undeclared"),
    ("function = '''\nclk rst en | q\nr 0 1 | q+1\nr 0 0 | =\n'''", "16:1", "no-way"),
    (COUNTER + "\ntable = '''\nrst en | q\n0 0 | 0\n'''", "20:1", "clocked"),
    (COUNTER + "\n" + steps("clk rst en | q\n. 1 0 | 0\nc 0 1 | 2"), "23:1", "sources-disagree"),
]


@pytest.mark.parametrize(("expect", "place", "code"), MISTAKES)
def test_every_mistake_at_its_place(expect: str, place: str, code: str) -> None:
    loaded = clocked(expect)
    assert loaded.expectation is None
    assert (place, code) in [(f"{m.line}:{m.column}", m.code) for m in loaded.messages], [
        str(m) for m in loaded.messages
    ]


# Function tables.


@pytest.mark.parametrize("name", LANGUAGES)
def test_a_function_table_makes_its_sequences(name: str) -> None:
    expectation = ready(clocked(COUNTER))
    coverage = expectation.coverage
    assert coverage is not None and (coverage.rows, coverage.states, coverage.possible_states) == (3, 4, 4)
    assert coverage.taken == coverage.possible == 12 and coverage.grid == ("tttt",) * 3
    assert expectation.cases.stimulus is not None and set(expectation.cases.stimulus.actions) == set(".rfc")
    assert set(cells(judge(expectation, LANGUAGES[name], name))) == {"p"}


def test_rows_by_the_state_before_levels_and_inner_states() -> None:
    table = (
        "function = '''\nclk rst en s | s q\nr 1 - - | 0 0\nr 0 0 - | = =\nr 0 1 0 | 2 1\nr 0 1 2 | 1 3\nr 0 1 1 | 0"
        " 0\n'''"
    )
    text = (
        HEAD.format(i="clk rst en", o="q[2]:dec")
        + 'inner = "s[2]:dec"\n'
        + CLOCK.format(edge="rise")
        + f"[expect]\n{table}\n"
    )
    from obento.core.check.check import open_spec

    loaded = open_spec("s.toml", text.encode(), {})
    expectation = ready(loaded)
    assert expectation.coverage is not None and expectation.coverage.unreached == ("s = 3",)
    values = [v for v in column(expectation) if v != "-"]
    assert values[:4] == ["0", "1", "3", "0"] and set(values) == {"0", "1", "3"}
    latch = "function = '''\nopen d | q\n1 0 | 0\n1 1 | 1\n0 - | =\n'''"
    plain = open_spec("l.toml", (HEAD.format(i="open d", o="q") + f"[expect]\n{latch}\n").encode(), {})
    assert set(
        cells(judge(ready(plain), "module m(input open, d, output reg q); always @* if (open) q = d; endmodule"))
    ) <= {"p", "n"}
    assert "f" in cells(judge(ready(plain), "module m(input open, d, output q); assign q = d; endmodule"))


def test_what_no_row_says_is_told_and_not_compared() -> None:
    loaded = clocked(COUNTER.replace("r   0   0  | =\n", ""))
    assert [m.code for m in loaded.messages if m.severity == "warning"] == ["incomplete"]
    assert set(cells(judge(ready(loaded), VERILOG))) == {"p", "n"}
    shadowed = clocked(COUNTER.replace("r   0   0", "r   1   1  | 3\nr   0   0"))
    assert [(m.line, m.code) for m in shadowed.messages if m.severity == "warning"] == [(18, "idle-row")]


def test_equations_give_outputs_from_states() -> None:
    expectation = ready(clocked(COUNTER + "\nequations = 'full = q == 3 & en'", o="q[2]:dec full"))
    right = VERILOG.replace("output reg [1:0] q", "output reg [1:0] q, output full").replace(
        "endmodule", "assign full = q == 3 && en; endmodule"
    )
    assert set(cells(judge(expectation, right))) == {"p"}
    assert "f" in cells(judge(expectation, right.replace("&& en", "")))


def test_a_reference_model_is_run_side_by_side() -> None:
    loaded = clocked('model = "ref.v"', ref_v=VERILOG.encode(), rest="[cases]\nrandom = { count = 200, seed = 3 }\n")
    expectation = ready(loaded)
    assert expectation.cases.count == 200
    for name, text in LANGUAGES.items():
        assert set(cells(judge(expectation, text, name))) <= {"p", "n"}
    assert "f" in cells(judge(expectation, VERILOG.replace("posedge clk", "negedge clk")))
    apart = clocked(COUNTER + '\nmodel = "ref.v"', ref_v=VERILOG.replace("q + 1", "q - 1").encode())
    assert "sources-disagree" in [m.code for m in apart.messages]


# Verdicts.


def test_first_divergence_and_what_only_follows() -> None:
    rows = "clk rst en | q\n. 1 0 | 0\nc 0 1 | 1\nc 0 0 | 1\nc 0 1 | 2\nc 0 1 | 3\n. 1 0 | 0\nc 0 1 | 1\nc 0 0 | 1"
    expectation = ready(clocked(steps(rows)))
    deaf = judge(expectation, VERILOG.replace("else if (en)", "else"))
    assert cells(deaf) == "ppfffppf"
    assert deaf.verdict is not None
    found = diverge(expectation, deaf.verdict)
    assert set_bits(found.first) == [2, 7] and set_bits(found.follows) == [3, 4]
    assert [(s.start, s.end, s.is_back) for s in found.stretches] == [(2, 5, True), (7, 8, False)]
    data = handin_report(expectation, "a", deaf, "failing")
    assert [(c["index"], c["step"], c["clock"], c["follows"]) for c in data["cases"]] == [
        (2, 3, "c", False), (3, 4, "c", True), (4, 5, "c", True), (7, 8, "c", False),
    ]  # fmt: skip
    assert data["verdict"] == "11000110"


def test_a_hand_in_that_swings_stops_its_sequence_only() -> None:
    rows = "clk rst en | q\n. 1 0 | 0\nc 0 1 | 1\nc 0 0 | 1\n---\n. 1 0 | 0\nc 0 0 | 0"
    loop = VERILOG.replace("endmodule", "wire a; assign a = q == 1 ? ~a : 1'b0; endmodule")
    assert cells(judge(ready(clocked(steps(rows))), loop)) == "pss" + "pp"


def test_clusters_by_what_is_compared_whatever_the_language() -> None:
    expectation = ready(clocked(SYNC_COUNTER, kind="sync"))
    wrong = [judge(expectation, text, name).verdict for name, text in LANGUAGES.items()]  # all three reset at once
    keys = {v.cluster for v in wrong if v is not None}
    assert len(keys) == 1 and all(v is not None and v.right != expectation.cases.full for v in wrong)


# Storage in wiring lists.


def test_flipflops_and_latches_of_wiring_lists() -> None:
    text = (
        "wiring m\n takes clk, rst, en, d\n gives q, p, l\n q <- flipflop(d, fall: clk, enable: en, clear_low: rst)\n p"
        " <- flipflop(d, rise: clk, preset: en)\n l <- latch(d, open: en)\nend\n"
    )
    rows = (
        "clk rst en d | q p l\n. 0 1 1 | 0 1 1\nc 1 0 1 | 0 1 1\nc 1 1 0 | 0 1 0\nc 1 1 1 | 0 1 1\n. 1 0 0 | 1 1 1\nc 1"
        " 0 0 | 1 0 1\n. 0 0 0 | 0 0 1"
    )
    expectation = ready(clocked(steps(rows), i="clk rst en d", o="q p l", edge="rise"))
    # q acts when the clock falls back to rest, after the step has been looked at
    assert cells(judge(expectation, text, "a.wiring")) == "p" * 7


WIRING_MISTAKES = [
    ("q <- flipflop(en)", "a flip-flop needs one clock"),
    ("q <- flipflop(en, rise: clk, fall: clk)", "a flip-flop needs one clock"),
    ("q <- flipflop(en, rise: clk, clr: rst)", "has no pin `clr`"),
    ("q <- flipflop(en, clk)", "takes 1 operand by order"),
    ("q <- latch(en)", "a latch needs `open:`"),
    ("q <- flipflop(en, rise: clk, clear: rst, clear_low: rst)", "exclude each other"),
]


@pytest.mark.parametrize(("line", "text"), WIRING_MISTAKES)
def test_mistakes_at_pins(line: str, text: str) -> None:
    checked = judge(
        ready(clocked(steps("clk rst en | q\nc 0 0 | 0"), o="q")),
        f"wiring m\n takes clk, rst, en\n gives q\n {line}\nend\n",
        "a.wiring",
    )
    assert checked.status == "unreadable" and any(text in m.text and m.line == 4 for m in checked.messages), [
        str(m) for m in checked.messages
    ]


def test_a_loop_through_a_flipflop_is_none() -> None:
    assert not any(m.code == "loop" for m in judge(ready(clocked(COUNTER)), WIRING, "a.wiring").messages)
