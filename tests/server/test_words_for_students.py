"""What students are told: placeholders, what the spec lets them see, and how a ledger adds up. No database needed."""

from __future__ import annotations

import random
from datetime import datetime

import pytest

from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Finding
from obento.core.check.judging.verdict import Verdict
from obento.core.diagnostics import Message
from obento.server.feedback.placeholders import fill
from obento.server.feedback.students_see import for_students, for_the_class
from obento.server.marks.mark import Mark, settle, why_held
from obento.store.marks import MarkEntry

WORDS = {"name": "Ada", "line": "line 7", "when": "", "mark": "8"}


@pytest.mark.parametrize(
    ("text", "filled"),
    [
        ("Dear {name}.", "Dear Ada."),
        ("Look at {line}, {name}.", "Look at line 7, Ada."),
        ("Wrong when {when}.", ""),
        ("Wrong[ when {when}].", "Wrong."),
        ("Wrong[ in {line}].", "Wrong in line 7."),
        ("Both[ {line} and {when}].", "Both."),
        ("One[ {line}][ {when}] two.", "One line 7 two."),
        ("An array a[3] and x[i] stay.", "An array a[3] and x[i] stay."),
        ("{unknown} and {} stay.", "{unknown} and {} stay."),
        ("a  b   c", "a b c"),
        ("", ""),
    ],
)
def test_placeholders(text: str, filled: str) -> None:
    assert fill(text, WORDS) == filled


def test_what_stands_in_a_value_is_not_read_again() -> None:
    assert fill("{name}", {"name": "{mark}", "mark": "8"}) == "{mark}"
    assert fill("{name}", {"name": "\\1 [x]"}) == "\\1 [x]"


SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "a b"
out = "y"
[expect]
equations = "y = a & b"
[cases]
groups = { secret = "a == 1 and b == 1" }
[students]
hidden = ["secret"]
see = "SEE"
"""


def expectation(see: str) -> Expectation:
    loaded = open_spec("s.toml", SPEC.replace("SEE", see).encode(), {})
    assert loaded.expectation is not None, [m.text for m in loaded.messages]
    return loaded.expectation


def finding(kind: str) -> Finding:
    return Finding(kind, "y", kind, "a.v", 3)


def verdict(failing: int) -> Verdict:
    return Verdict(4, {}, {}, {}, passed=0b1111 & ~failing, failed=failing)


def test_hidden_cases_are_those_of_hidden_groups() -> None:
    assert expectation("all").hidden == 0b1000


@pytest.mark.parametrize(
    ("see", "failing", "told"),
    [
        ("all", 0b0001, ["wrong", "inverted"]),
        ("first-failing", 0b0001, ["wrong", "inverted"]),
        ("all", 0b1001, ["inverted"]),  # a hidden case is among the wrong ones: nothing that speaks of cases
        ("counts", 0b0001, []),
        ("nothing", 0b0001, []),
    ],
)
def test_students_are_told_what_the_spec_lets_them_see(see: str, failing: int, told: list[str]) -> None:
    findings = [finding("wrong"), finding("inverted")]
    assert [f.kind for f in for_students(expectation(see), verdict(failing), findings)] == told


def test_a_lecture_is_told_more_than_a_student_but_no_hidden_case() -> None:
    findings = [finding("wrong"), finding("inverted")]
    assert len(for_the_class(expectation("nothing"), verdict(0b0001), findings)) == 2
    assert [f.kind for f in for_the_class(expectation("nothing"), verdict(0b1000), findings)] == ["inverted"]
    assert len(for_the_class(expectation("all"), None, findings)) == 2


def entry(kind: str, value: float | None = None, reason: str = "", result: int | None = None) -> MarkEntry:
    return MarkEntry(1, 1, None, kind, value, reason, None, datetime(2026, 11, 30), result)


@pytest.mark.parametrize(
    ("entries", "mark"),
    [
        ([], Mark(None, True, "not checked yet", False)),
        ([entry("computed", 7, "", 1)], Mark(7, False, "", False)),
        ([entry("computed", 7, "2 off: gates", 1)], Mark(7, False, "2 off: gates", False)),
        ([entry("held", None, "does not compile", 1)], Mark(None, True, "does not compile", False)),
        ([entry("held", None, "x", 1), entry("computed", 5, "", 2)], Mark(5, False, "", False)),
        ([entry("computed", 5, "", 1), entry("held", None, "x", 2)], Mark(None, True, "x", False)),
        (
            [entry("computed", 8, "", 1), entry("late", -2, "handed in late", 1)],
            Mark(6, False, "handed in late", False),
        ),
        # lateness belongs to its outcome
        (
            [entry("computed", 8, "", 1), entry("late", -2, "l", 1), entry("computed", 9, "", 2)],
            Mark(9, False, "", False),
        ),
        # a human's word stands above the machine's, until it is lifted
        ([entry("override", 10, "viva"), entry("computed", 3, "", 1)], Mark(10, False, "viva", True)),
        ([entry("computed", 3, "", 1), entry("override", 0, "copied")], Mark(0, False, "copied", True)),
        ([entry("held", None, "x", 1), entry("manual", 4, "by eye")], Mark(4, False, "by eye", True)),
        (
            [entry("computed", 3, "", 1), entry("override", 9, "a"), entry("lifted"), entry("override", 8, "b")],
            Mark(8, False, "b", True),
        ),
        ([entry("computed", 3, "", 1), entry("override", 9, "a"), entry("lifted")], Mark(3, False, "", False)),
        ([entry("manual", 2, "m"), entry("override", 9, "a")], Mark(9, False, "a", True)),
    ],
)
def test_a_ledger_comes_to_a_mark(entries: list[MarkEntry], mark: Mark) -> None:
    assert settle(entries) == mark


@pytest.mark.parametrize("seed", range(30))
def test_whatever_the_machine_adds_a_human_mark_stands(seed: int) -> None:
    source = random.Random(seed)
    machine = ["computed", "late", "held"]
    before = [entry(source.choice(machine), source.randint(0, 9), "", source.randint(1, 3)) for _ in range(5)]
    after = [entry(source.choice(machine), source.randint(0, 9), "", source.randint(1, 3)) for _ in range(5)]
    assert settle([*before, entry("override", 6.5, "why"), *after]) == Mark(6.5, False, "why", True)
    assert not settle([*before, entry("override", 6.5, "why"), *after, entry("lifted")]).by_hand


def message(severity: str, line: int, text: str) -> Message:
    return Message(severity, "c", "a.v", line, 1, text)  # type: ignore[arg-type]


def test_what_keeps_a_hand_in_from_being_checked_is_its_first_error() -> None:
    said = [message("warning", 1, "w"), message("error", 4, "a semicolon is missing"), message("error", 9, "more")]
    assert why_held("unreadable", said) == "line 4: a semicolon is missing"
    assert why_held("ports", [message("error", 0, "no port")]) == "no port"
    assert why_held("empty", []) == "is empty"
    assert why_held("checked", said) == ""
