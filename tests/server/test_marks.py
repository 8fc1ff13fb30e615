"""The ledger of marks: a human's word stands above a machine's, held is not zero."""

from __future__ import annotations

from datetime import datetime

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.marking import mark_of
from obento.core.handin import HandinFile
from obento.server.feedback.placeholders import fill
from obento.server.marks.mark import settle
from obento.store.marks import MarkEntry


def entry(kind: str, value: float | None = None, result: int | None = None, reason: str = "") -> MarkEntry:
    return MarkEntry(1, 1, None, kind, value, reason, None, datetime(2026, 11, 30), result)


LEDGERS = [
    ([], None, True),
    ([entry("computed", 7.5, 1)], 7.5, False),
    ([entry("computed", 7.5, 1), entry("late", -0.75, 1)], 6.75, False),
    ([entry("computed", 5, 1), entry("late", -0.5, 1), entry("computed", 8, 2)], 8.0, False),  # a new attempt in time
    ([entry("held", None, 1)], None, True),
    ([entry("held", None, 1), entry("computed", 4, 2)], 4.0, False),
    ([entry("computed", 4, 1), entry("held", None, 2)], None, True),
    ([entry("computed", 4, 1), entry("override", 9, reason="why")], 9.0, False),
    ([entry("override", 9, reason="why"), entry("computed", 4, 2)], 9.0, False),  # a recheck does not wipe it
    ([entry("override", 9, reason="why"), entry("held", None, 2)], 9.0, False),
    ([entry("computed", 4, 1), entry("override", 9), entry("lifted")], 4.0, False),
    ([entry("computed", 4, 1), entry("override", 9), entry("lifted"), entry("override", 6)], 6.0, False),
    ([entry("manual", 3), entry("computed", 4, 1)], 3.0, False),
]


@pytest.mark.parametrize(("ledger", "value", "held"), LEDGERS)
def test_what_a_ledger_comes_to(ledger: list[MarkEntry], value: float | None, held: bool) -> None:
    mark = settle(ledger)
    assert (mark.value, mark.held) == (value, held)


def marked(rest: str, text: str = "y = 0;", expect: str = "equations = 'y = a | b'") -> float:
    spec = f"obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a b'\nout = 'y'\n[expect]\n{expect}\n{rest}"
    loaded = open_spec("s.toml", spec.encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    checked = check_handin(
        loaded.expectation,
        [HandinFile("m.v", f"module m(input a, b, output reg y); always @(a, b) {text} endmodule".encode())],
    )
    assert checked.verdict is not None
    return mark_of(loaded.expectation, checked.verdict, []).value


def test_marks_by_cases_groups_and_all() -> None:
    assert marked("") == 2.5  # right in one case of four
    assert marked("[marks]\ntotal = 20\n") == 5.0
    assert marked("[marks]\nby = 'all'\n") == 0.0
    assert marked("[marks]\nby = 'all'\n", "y = a | b;") == 10.0
    groups = "[cases]\ngroups = { low = '!a', high = 'a' }\n[marks]\nby = 'groups'\nweights = { low = 3, high = 1 }\n"
    assert marked(groups) == 3.75  # half of the low group, three quarters of the marks
    assert (
        marked("", "y = a;", "table = '''\na b | y\n0 0 | 0\n0 1 | 1\n1 - | -\n'''") == 5.0
    )  # only compared cases count


def test_placeholders_in_comments() -> None:
    values = {
        "name": "Ilse",
        "line": "line 7",
        "when": "",
        "right": "3",
        "total": "4",
        "mark": "7.5",
        "file": "a.v",
        "unit": "m",
    }
    assert fill("{name}: {line} of {file}, {right}/{total}", values) == "Ilse: line 7 of a.v, 3/4"
    assert fill("fails {when}. {unknown} {{name}}", values) == "{unknown} {Ilse}"
