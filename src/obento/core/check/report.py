"""Results as data for files: the JSON form `result/1` of docs/formats.md, and rows for CSV and XML."""

from __future__ import annotations

from typing import Any, Literal

from obento.core import values
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.explaining.divergence import diverge
from obento.core.check.judging.outcome import Checked
from obento.core.check.judging.verdict import Verdict, set_bits, shown_word

FORMAT = "result/1"
Shown = Literal["all", "failing", "none"]


def report(expectation: Expectation, handins: list[tuple[str, Checked]], cases: Shown = "failing") -> dict[str, Any]:
    """The whole result of a check."""
    spec = expectation.spec
    return {
        "obento": FORMAT,
        "spec": {"title": spec.title, "unit": spec.unit, "cases": expectation.cases.count, "digest": spec.digest},
        "handins": [handin_report(expectation, name, checked, cases) for name, checked in handins],
    }


def handin_report(expectation: Expectation, name: str, checked: Checked, cases: Shown) -> dict[str, Any]:
    """One hand-in as data (`result/1` of docs/formats.md); `cases` says which of its cases are listed."""
    verdict = checked.verdict
    count = expectation.cases.count
    follows = diverge(expectation, verdict).follows if verdict and expectation.cases.stimulus else 0
    return {
        "name": name,
        "status": checked.status,
        "language": checked.language or None,
        "unit": checked.unit or None,
        "passed": verdict.right.bit_count() if verdict else 0,
        "total": count,
        "verdict": verdict.digits() if verdict else "0" * count,
        "cells": verdict.cells() if verdict else "s" * count,
        "cluster": verdict.cluster if verdict else None,
        "cases": [case_report(expectation, verdict, i, follows) for i in _chosen(verdict, cases)] if verdict else [],
        "binding": [{"ours": b.ours, "theirs": b.theirs, "how": b.how} for b in checked.binding],
        "rules": [{"rule": r.rule, "ok": r.ok, "text": r.text} for r in checked.rules],
        "findings": [
            {"kind": f.kind, "text": f.text, "file": f.file or None, "line": f.line or None} for f in checked.findings
        ],
        "messages": [message_report(m) for m in checked.messages],
    }


def message_report(m: Any) -> dict[str, Any]:
    """A message as data; what is not known of its place is None."""
    return {
        "severity": m.severity,
        "code": m.code,
        "file": m.file or None,
        "line": m.line or None,
        "column": m.column or None,
        "text": m.text,
        "hint": m.hint or None,
    }


def _chosen(verdict: Verdict, cases: Shown) -> list[int]:
    if cases == "none":
        return []
    if cases == "all":
        return list(range(verdict.count))
    plane = values.ones(verdict.count) & ~verdict.right
    return set_bits(plane)


def case_report(expectation: Expectation, verdict: Verdict, case: int, follows: int = 0) -> dict[str, Any]:
    """One case: inputs, expected, actual (as shown by the ports' radix), which outputs are not right and in which run.

    A step also says where it is and what the clock does; `follows` are the steps that are wrong only because earlier
    ones were."""
    spec = expectation.spec
    inputs: dict[str, str] = {}
    bit = 0
    for port in spec.inputs:
        inputs[port.name] = port.show(expectation.cases.word(case, bit, port.width))
        bit += port.width
    expected: dict[str, str] = {}
    actual: dict[str, str] = {}
    wrong: list[str] = []
    for port in spec.outputs:
        word, care = expected_word(expectation, port.name, port.width, case, verdict.expected)
        expected[port.name] = port.show(word, care)
        actual[port.name] = port.show(shown_word(verdict, port, case))
        output = verdict.outputs[port.name]
        if (output.failed | output.undefined | output.stopped) >> case & 1:
            wrong.append(port.name)
    group = next((name for name, plane in expectation.groups.items() if plane >> case & 1), None)
    stimulus = expectation.cases.stimulus
    step: dict[str, Any] = {}
    if stimulus is not None:
        sequence, number = stimulus.place(case)
        step = {
            "sequence": sequence.name,
            "step": number,
            "clock": stimulus.actions[case],
            "follows": bool(follows >> case & 1),
        }
        if spec.clock is not None:
            inputs[spec.clock.port] = stimulus.actions[case]
    if expectation.cases.labels:
        step = {"check": expectation.cases.labels[case]}
    return {
        "index": case,
        **step,
        "group": group,
        "run": verdict.run_of(case),
        "in": inputs,
        "expected": expected,
        "actual": actual,
        "pass": bool(verdict.right >> case & 1),
        "wrong": wrong,
    }
