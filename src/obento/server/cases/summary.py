"""What a class's pages show of one outcome; kept with the outcome, so that no page reads what it does not draw."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import BaseModel

from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.divergence import diverge
from obento.core.check.judging.marking import Earned, mark_of
from obento.core.check.judging.rules import RuleResult
from obento.core.check.judging.verdict import Verdict
from obento.core.planes import set_bits
from obento.server.cases.models import CaseRow
from obento.server.cases.rows import case_rows
from obento.store.connection import Connection
from obento.store.results import KeptOutcomes, Result, load_verdict

_STRIP = 64
_ROWS = 6


class OutcomeSummary(BaseModel):
    """`strip` has one letter a case; of many cases one letter a part of them, the worst in it, and `shares` say how
    many in a hundred there are not right. `rows` are the first that are wrong. `first_wrong` are the steps that are
    wrong of themselves (a plane in hexadecimal); empty without a clock, where that is every wrong case. `mark` is what
    it earns by the spec."""

    strip: str
    shares: list[int]
    rows: list[CaseRow]
    first_wrong: str = ""
    mark: float = 0.0
    mark_reason: str = ""

    @property
    def earned(self) -> Earned:
        return Earned(self.mark, self.mark_reason)


def summary_of(expectation: Expectation, verdict: Verdict, rules: Sequence[RuleResult]) -> OutcomeSummary:
    """The summary of an outcome that was checked."""
    earned = mark_of(expectation, verdict, rules)
    strip, shares = strip_of(verdict)
    clocked = expectation.cases.stimulus is not None
    plane = diverge(expectation, verdict).first if clocked else expectation.cases.full & ~verdict.right
    rows = case_rows(expectation, verdict, set_bits(plane)[:_ROWS])
    return OutcomeSummary(
        strip=strip,
        shares=shares,
        rows=rows,
        first_wrong=f"{plane:x}" if clocked else "",
        mark=earned.value,
        mark_reason=earned.reason,
    )


def strip_of(verdict: Verdict) -> tuple[str, list[int]]:
    """One letter a case. Of many cases one letter a part of them, the worst in it, and how many in a hundred there are
    not right."""
    cells = verdict.cells()
    if len(cells) <= _STRIP:
        return cells, []
    size = -(-len(cells) // _STRIP)
    parts = [cells[i : i + size] for i in range(0, len(cells), size)]
    worst = "".join(next((x for x in "sfup" if x in part), "n") for part in parts)
    wrong = [sum(part.count(x) for x in "sfu") for part in parts]
    return worst, [-(-100 * n // len(part)) for n, part in zip(wrong, parts, strict=True)]


def kept_summary(c: Connection, result: Result, expectation: Expectation, kept: KeptOutcomes) -> OutcomeSummary:
    """The summary of an outcome that was checked; made anew where an older version kept none."""
    if result.summary is not None:
        return OutcomeSummary.model_validate_json(result.summary)
    verdict = load_verdict(c, result, expectation, kept.planes)
    assert verdict is not None
    return summary_of(expectation, verdict, result.detail.rules)
