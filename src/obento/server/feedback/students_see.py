"""What of the findings students may see: the spec's `see` and its hidden groups decide."""

from __future__ import annotations

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Finding
from obento.core.check.judging.verdict import Verdict

_WITHOUT_VALUES = frozenset(
    [
        "inverted",
        "reversed",
        "exchanged-inputs",
        "exchanged-outputs",
        "constant",
        "ignores",
        "remembers",
        "dont-care",
        "wrong-edge",
        "reset-sync",
        "reset-async",
        "reset-level",
        "late",
        "blocking",
        "stuck",
        "stopped",
        "cut",
        "off-by-one",
        "no-carries",
        "latch",
        "sensitivity",
        "other-edge",
        "reset-edge",
        "undriven",
        "never-assigned",
        "two-drivers",
        "width-cut",
        "number-cut",
        "port-width",
        "open-input",
        "open-output",
        "out-of-range",
    ]
)
"""Kinds of findings that say nothing of single cases."""


def for_students(expectation: Expectation, verdict: Verdict | None, findings: list[Finding]) -> list[Finding]:
    """Those findings that a student may be told, in their order.

    With `see` at nothing or counts none; where a hidden case is among the wrong ones, only what says nothing of single
    cases."""
    return [] if expectation.spec.see in ("nothing", "counts") else for_the_class(expectation, verdict, findings)


def for_the_class(expectation: Expectation, verdict: Verdict | None, findings: list[Finding]) -> list[Finding]:
    """Those findings that may be shown in a lecture: where a hidden case is among the wrong ones, only what says
    nothing of single cases."""
    wrong = expectation.cases.full & ~verdict.right if verdict is not None else 0
    if wrong & expectation.hidden:
        return [f for f in findings if f.kind in _WITHOUT_VALUES]
    return findings
