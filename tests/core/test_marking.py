"""What a hand-in earns: by cases, by all, by groups, less what rules cost."""

from __future__ import annotations

import pytest

from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.marking import Earned, mark_of
from obento.core.check.judging.rules import RuleResult
from obento.core.check.judging.verdict import Verdict

HEAD = """obento = "spec/1"
unit = "m"
[ports]
in = "a b c"
out = "y"
[expect]
table = '''
a b c | y
0 0 0 | 0
0 0 1 | 0
0 1 0 | 1
0 1 1 | 1
1 0 0 | -
1 0 1 | -
1 1 0 | 0
1 1 1 | 1
'''
"""
GROUPS = '[cases]\ngroups = { low = "a == 0", high = "a == 1" }\n'


def expectation(rest: str) -> Expectation:
    loaded = open_spec("s.toml", (HEAD + rest).encode(), {})
    assert loaded.expectation is not None, [m.text for m in loaded.messages]
    return loaded.expectation


def verdict(of: Expectation, failing: int) -> Verdict:
    """Wrong in some of the compared cases; cases 4 and 5 are not compared."""
    not_compared = 0b00110000
    passed = of.cases.full & ~failing & ~not_compared
    return Verdict(8, {}, {}, {}, passed=passed, failed=failing, not_compared=not_compared)


def mark(rest: str, failing: int, *rules: RuleResult) -> Earned:
    of = expectation(rest)
    return mark_of(of, verdict(of, failing), rules)


@pytest.mark.parametrize(
    ("failing", "value"), [(0, 12.0), (0b1, 10.0), (0b1000_0001, 8.0), (0b1100_1111, 0.0), (0b111, 6.0)]
)
def test_by_cases_only_what_is_compared_counts(failing: int, value: float) -> None:
    assert mark('[marks]\ntotal = 12\nby = "cases"\n', failing) == Earned(value)


@pytest.mark.parametrize(("failing", "value"), [(0, 12.0), (0b1, 0.0)])
def test_by_all_one_wrong_case_costs_everything(failing: int, value: float) -> None:
    assert mark('[marks]\ntotal = 12\nby = "all"\n', failing) == Earned(value)


@pytest.mark.parametrize(
    ("weights", "failing", "value"),
    [
        ("", 0, 12.0),
        ("", 0b1, 10.5),  # low: 3 of 4, high: 2 of 2, alike
        ("", 0b0100_0000, 9.0),  # high: 1 of 2
        ("weights = { low = 3, high = 1 }\n", 0b0100_0000, 10.5),
        ("weights = { low = 0, high = 1 }\n", 0b1111, 12.0),
        ("weights = { high = 3 }\n", 0b1111, 9.0),  # what has no weight weighs one
    ],
)
def test_by_groups_each_counts_by_its_weight(weights: str, failing: int, value: float) -> None:
    assert mark(f'{GROUPS}[marks]\ntotal = 12\nby = "groups"\n{weights}', failing) == Earned(value)


def test_a_group_in_which_nothing_is_compared_is_no_loss() -> None:
    groups = '[cases]\ngroups = { open = "a == 1 and b == 0", rest = "b == 1" }\n'
    assert mark(f'{groups}[marks]\ntotal = 10\nby = "groups"\n', 0b1100_1100) == Earned(5.0)


def test_rules_cost_what_the_spec_says_and_never_below_nothing() -> None:
    rules = '[rules]\nonly_gates = ["nor"]\n[marks]\ntotal = 10\nrules = { only_gates = 4 }\n'
    broken = RuleResult("only_gates", False, "1 or is not allowed")
    kept = RuleResult("only_gates", True, "")
    free = RuleResult("max_gates", False, "9 gates, at most 5")
    assert mark(rules, 0, kept) == Earned(10.0)
    assert mark(rules, 0, broken) == Earned(6.0, "4 off: 1 or is not allowed")
    assert mark(rules, 0, free) == Earned(10.0), "a rule without a price is told, not charged"
    assert mark(rules, 0b1100_1111, broken) == Earned(0.0, "4 off: 1 or is not allowed")


def test_marks_have_two_places() -> None:
    assert mark('[marks]\ntotal = 10\nby = "cases"\n', 0b1).value == 8.33
