"""Where a clocked hand-in goes astray: held against the rule told step by step, and the words for it."""

from __future__ import annotations

import random

import pytest

from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.divergence import Divergence, describe, diverge, happening, when_it_diverges
from obento.core.check.judging.verdict import Verdict
from tests.core.clocked import clocked, judge, ready

STEPS = """steps = '''
rst en clk | q
1 0 . | 0
0 1 c | 1
0 1 c | 2
0 0 . | 2
0 1 c | 3
0 0 c | 3
0 1 c | 0
1 1 . | 0
0 1 c | 1
0 1 c | 2
0 0 . | 2
0 0 . | 2
--- second
rst en clk | q
1 0 . | 0
0 0 c | 0
0 1 c | 1
0 1 c | -
0 1 c | 3
0 1 c | 0
'''
"""
COUNTER = """module m(input clk, rst, en, output reg [1:0] q);
  always @(posedge clk or posedge rst) if (rst) q <= 0; else if (en) q <= q + 1;
endmodule
"""


@pytest.fixture(scope="module")
def expectation() -> Expectation:
    return ready(clocked(STEPS))


def verdict_of(of: Expectation, cells: str) -> Verdict:
    """A verdict by its letters, p, f and n."""

    def plane(letter: str) -> int:
        return sum(1 << i for i, c in enumerate(cells) if c == letter)

    return Verdict(len(cells), {}, {}, {}, passed=plane("p"), failed=plane("f"), not_compared=plane("n"))


def told(found: Divergence, count: int) -> str:
    """A letter a step: F goes astray, w follows, s is sane, . is right while astray."""
    letters = ((found.first, "F"), (found.follows, "w"), (found.sane, "s"))
    return "".join(next((letter for plane, letter in letters if plane >> i & 1), ".") for i in range(count))


def by_the_rule(of: Expectation, cells: str) -> str:
    """The same, sequence by sequence: back at a reset that is right, or after four compared steps that are right with
    an active edge among them."""
    stimulus = of.cases.stimulus
    assert stimulus is not None
    out = ""
    for sequence in stimulus.sequences:
        is_astray, right, edges = False, 0, 0
        for step in range(sequence.first, sequence.first + sequence.length):
            cell, reset = cells[step], of.cases.one[1] >> step & 1
            if cell == "f":
                out += "w" if is_astray else "F"
                is_astray, right, edges = True, 0, 0
                continue
            if is_astray and cell == "p":
                right, edges = right + 1, edges + stimulus.active(step)
                if reset or (right >= 4 and edges):
                    is_astray = False
            out += "." if is_astray else "s"
    return out


@pytest.mark.parametrize("seed", range(120))
def test_steps_that_go_astray_are_told_from_those_that_follow(expectation: Expectation, seed: int) -> None:
    source = random.Random(seed)
    cells = "".join(source.choice("pppppfn") for _ in range(expectation.cases.count))
    found = diverge(expectation, verdict_of(expectation, cells))
    assert told(found, len(cells)) == by_the_rule(expectation, cells), cells
    for stretch in found.stretches:
        assert found.first >> stretch.start & 1
        assert stretch.start < stretch.end <= stretch.sequence.first + stretch.sequence.length


@pytest.mark.parametrize(
    ("cells", "stretches"),
    [
        ("p" * 18, []),
        ("pf" + "p" * 16, [(1, 2, True)]),
        ("pfffff" + "p" * 12, [(1, 6, True)]),
        ("p" * 17 + "f", [(17, 18, False)]),
        ("pf" + "ppp" + "f" + "p" * 12, [(1, 6, True)]),  # three right steps are not enough
        ("p" * 13 + "f" + "pppp", [(13, 14, True)]),
        ("p" * 11 + "f" + "p" * 6, [(11, 12, False)]),  # the next sequence begins anew
    ],
)
def test_stretches(expectation: Expectation, cells: str, stretches: list[tuple[int, int, bool]]) -> None:
    found = diverge(expectation, verdict_of(expectation, cells))
    assert [(s.start, s.end, s.is_back) for s in found.stretches] == stretches


@pytest.mark.parametrize(
    ("step", "words"),
    [
        (0, "at power-up with rst = 1 and en = 0"),
        (1, "at the rising edge with rst = 0 and en = 1"),
        (3, "without an edge, en = 0:"),
        (7, "without an edge, rst = 1:"),
        (11, "without an edge, nothing changed:"),
    ],
)
def test_what_a_step_does(expectation: Expectation, step: int, words: str) -> None:
    assert happening(expectation, step) == words


def test_the_first_step_is_named_with_what_it_is_and_should_be(expectation: Expectation) -> None:
    deaf = judge(expectation, COUNTER.replace("else if (en)", "else"))
    assert deaf.verdict is not None
    found = diverge(expectation, deaf.verdict)
    assert deaf.verdict.cells() == "pppppffppppppffnff"
    assert told(found, 18) == "sssssFwssssssFw.ww"
    assert describe(expectation, deaf.verdict, found, "q") == (
        "q is wrong in 6 of 18 steps, first in sequence 1, step 6: at the rising edge with rst = 0 and en = 0 it is 0"
        " instead of 3 (4 only follow)"
    )


def test_a_falling_edge_is_called_so() -> None:
    falling = ready(clocked(STEPS, edge="fall"))
    assert happening(falling, 1) == "at the falling edge with rst = 0 and en = 1"


def test_what_all_that_goes_astray_has_in_common(expectation: Expectation) -> None:
    deaf = judge(expectation, COUNTER.replace("else if (en)", "else"))
    assert deaf.verdict is not None
    words = when_it_diverges(expectation, deaf.verdict, diverge(expectation, deaf.verdict))
    assert words == "en = 0 at the rising edge"
    right = judge(expectation, COUNTER)
    assert right.verdict is not None
    assert when_it_diverges(expectation, right.verdict, diverge(expectation, right.verdict)) == ""
