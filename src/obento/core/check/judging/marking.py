"""What a hand-in earns by its spec: a share for right cases, less what broken rules cost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.rules import RuleResult
from obento.core.check.judging.verdict import Verdict


@dataclass(frozen=True, slots=True)
class Earned:
    """A mark, never below 0; `reason` says what was taken off."""

    value: float
    reason: str = ""


def mark_of(expectation: Expectation, verdict: Verdict, rules: Sequence[RuleResult]) -> Earned:
    """Marks by the spec. Only compared cases count: a don't-care is no merit."""
    marks = expectation.spec.marks
    earned = marks.total * _share(expectation, verdict)
    broken = [r for r in rules if not r.ok and marks.rules.get(r.rule)]
    cost = sum(marks.rules[r.rule] for r in broken)
    reason = f"{cost:g} off: {'; '.join(r.text for r in broken)}" if broken else ""
    return Earned(round(max(0.0, earned - cost), 2), reason)


def _share(expectation: Expectation, verdict: Verdict) -> float:
    marks = expectation.spec.marks
    compared = expectation.cases.full & ~verdict.not_compared

    def share(plane: int) -> float:
        total = (compared & plane).bit_count()
        return (verdict.passed & plane).bit_count() / total if total else 1.0

    everything = expectation.cases.full
    if marks.by == "all":
        return 1.0 if share(everything) == 1.0 else 0.0
    if marks.by == "groups" and expectation.groups:
        weights = {name: marks.weights.get(name, 1.0) for name in expectation.groups}
        total = sum(weights.values())
        if total:
            return sum(weights[name] * share(plane) for name, plane in expectation.groups.items()) / total
    return share(everything)
