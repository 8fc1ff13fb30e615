"""Random designs with a mistake or two: the verdict, and every sentence that is said, is held against the truth by a
second reader that shares nothing with the program. `bench/sentences.py` does the same for tens of thousands."""

from __future__ import annotations

import pytest

from tests.second_reader.judged import judged_machine, judged_tree
from tests.second_reader.sentences import is_true
from tests.second_reader.truth import Case, Port, Truth, Unread

_TREES, _MACHINES = 150, 100


def test_nothing_untrue_is_said_of_trees() -> None:
    judged = {seed: judged_tree(seed) for seed in range(_TREES)}
    assert {seed: j.untrue for seed, j in judged.items() if j.untrue} == {}
    assert sum(j.said for j in judged.values()) > _TREES


def test_nothing_untrue_is_said_of_machines() -> None:
    judged = {seed: judged_machine(seed) for seed in range(_MACHINES)}
    assert {seed: j.untrue for seed, j in judged.items() if j.untrue} == {}
    assert sum(j.said for j in judged.values()) > _MACHINES


def truth() -> Truth:
    """`y` should be `a` and `b`, and is `a` or `b`; `z` is `a + 1` instead of `a`."""
    a, b = Port("a", 2, False, "dec"), Port("b", 1)
    cases = []
    for x in range(4):
        for k in range(2):
            cases.append(Case({"a": x, "b": k}, {"y": x >> 1 & k, "z": x}, {"y": x >> 1 | k, "z": x + 1 & 3}))
    return Truth((a, b), (Port("y", 1), Port("z", 2, False, "dec")), cases)


@pytest.mark.parametrize(
    ("text", "holds"),
    [
        ("y is wrong whenever a[1] differs from b: 4 of 8", True),
        ("y is wrong whenever a[1] differs from b: 5 of 8", False),
        ("y is wrong whenever a is at least 2: 4 of 8", False),
        ("y is wrong whenever (a = 2 or 3) and b = 0 or a is at most 1 and b = 1: 4 of 8", True),
        ("y is wrong whenever a = 0 to 1 and b = 1 or a = 2 or 3 and b = 0: 4 of 8", True),
        ("y is wrong only when a is less than 3: 4 of 6", False),
        ("z is 1 too large in all 8 wrong cases", True),
        ("z is 1 too small in all 8 wrong cases", False),
        ("z is always 1", False),
        ("z is inverted in every bit", False),
        ("y does not depend on b, and should", False),
        ("y and z are exchanged", False),
        ("y lacks a product term: it should be 1 whenever b = 1", False),
    ],
)
def test_the_reader_tells_true_from_untrue(text: str, holds: bool) -> None:
    assert is_true(truth(), text) is holds


@pytest.mark.parametrize("text", ["y is somehow odd", "y is wrong whenever c = 1: 1 of 8", "z is always 9"])
def test_what_it_cannot_read_is_no_sentence(text: str) -> None:
    with pytest.raises(Unread):
        is_true(truth(), text)
