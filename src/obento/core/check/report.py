"""Results as data for files: the JSON form `result/1` of docs/formats.md, and rows for CSV and XML."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import Any, Literal

from obento.core import values
from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.divergence import diverge
from obento.core.check.judging.outcome import Checked
from obento.core.check.judging.verdict import Verdict
from obento.core.planes import picked, set_bits, spelled
from obento.core.spec.model import SpecPort

FORMAT = "result/1"
Shown = Literal["all", "failing", "none"]


def report_head(expectation: Expectation) -> dict[str, Any]:
    """What a result says before its hand-ins."""
    spec = expectation.spec
    return {
        "obento": FORMAT,
        "spec": {"title": spec.title, "unit": spec.unit, "cases": expectation.cases.count, "digest": spec.digest},
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
        "cases": list(case_reports(expectation, verdict, _chosen(verdict, cases), follows)) if verdict else [],
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


def case_reports(
    expectation: Expectation, verdict: Verdict, cases: Sequence[int], follows: int = 0
) -> Iterator[dict[str, Any]]:
    """Cases one after the other: inputs, expected, actual (as shown by the ports' radix), which outputs are not right
    and in which run.

    A step also says where it is and what the clock does; `follows` are the steps that are wrong only because earlier
    ones were."""
    if cases:
        words = _Words(expectation, verdict, cases)
        for number, case in enumerate(cases):
            yield words.report(number, case, follows)


class _Words:
    """The words of every port in some cases, so that a case is read without going through planes of all cases."""

    def __init__(self, expectation: Expectation, verdict: Verdict, chosen: Sequence[int]) -> None:
        self._expectation = expectation
        self._verdict = verdict
        cases = expectation.cases

        def spell(port: SpecPort, *planes: Iterable[int]) -> _Spelled:
            return _Spelled(
                port, *(spelled([picked(p, cases.count, chosen) for p in each], len(chosen)) for each in planes)
            )

        self._inputs: list[tuple[SpecPort, _Spelled]] = []
        bit = 0
        for port in expectation.spec.inputs:
            bits = range(bit + port.width - 1, bit - 1, -1)
            self._inputs.append((port, spell(port, (cases.one[i] for i in bits), (cases.zero[i] for i in bits))))
            bit += port.width
        self._outputs: list[tuple[SpecPort, _Spelled, _Spelled, int]] = []
        for port in expectation.spec.outputs:
            keys = [(port.name, i) for i in range(port.width - 1, -1, -1)]
            wanted = [verdict.expected[key] for key in keys]
            expected = spell(port, (w.one for w in wanted), (w.zero for w in wanted), (w.care for w in wanted))
            actual = spell(port, *zip(*(verdict.shown[key] for key in keys), strict=True))
            output = verdict.outputs[port.name]
            self._outputs.append((port, expected, actual, output.failed | output.undefined | output.stopped))

    def report(self, at: int, case: int, follows: int) -> dict[str, Any]:
        spec, verdict = self._expectation.spec, self._verdict
        inputs = {port.name: words.show(at) for port, words in self._inputs}
        stimulus = self._expectation.cases.stimulus
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
        if self._expectation.cases.labels:
            step = {"check": self._expectation.cases.labels[case]}
        return {
            "index": case,
            **step,
            "group": next((name for name, plane in self._expectation.groups.items() if plane >> case & 1), None),
            "run": verdict.run_of(case),
            "in": inputs,
            "expected": {port.name: expected.show(at) for port, expected, _, _ in self._outputs},
            "actual": {port.name: actual.show(at) for port, _, actual, _ in self._outputs},
            "pass": bool(verdict.right >> case & 1),
            "wrong": [port.name for port, _, _, wrong in self._outputs if wrong >> case & 1],
        }


class _Spelled:
    """What a port is in each of some cases, as it is shown."""

    def __init__(
        self, port: SpecPort, one: Sequence[int], zero: Sequence[int], care: Sequence[int] | None = None
    ) -> None:
        self._port, self._one, self._zero, self._care = port, one, zero, care
        self._known: dict[tuple[int, int, int | None], str] = {}

    def show(self, number: int) -> str:
        care = self._care[number] if self._care is not None else None
        key = self._one[number], self._zero[number], care
        text = self._known.get(key)
        if text is None:
            text = self._known[key] = self._port.show((key[0], key[1]), care)
        return text
