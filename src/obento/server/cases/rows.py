"""Cases and steps with what was expected and what was seen."""

from __future__ import annotations

from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.divergence import diverge
from obento.core.check.judging.verdict import Verdict
from obento.core.check.report import case_reports
from obento.core.planes import set_bits
from obento.server.cases.models import CaseRow
from obento.server.specs.cases import case_name, step_place


def wrong_cases(verdict: Verdict) -> list[int]:
    """Cases that count as not passed, in order."""
    return set_bits(((1 << verdict.count) - 1) & ~verdict.right)


def first_wrong(expectation: Expectation, verdict: Verdict) -> list[int]:
    """The cases to show: those that are wrong, of clocked hand-ins those that are wrong of themselves."""
    if expectation.cases.stimulus is None:
        return wrong_cases(verdict)
    return set_bits(diverge(expectation, verdict).first)


def case_rows(expectation: Expectation, verdict: Verdict, cases: list[int]) -> list[CaseRow]:
    spec = expectation.spec
    rows = []
    follows = diverge(expectation, verdict).follows if expectation.cases.stimulus else 0
    for data in case_reports(expectation, verdict, cases):
        case = data["index"]
        cell = next(
            (
                x
                for x, plane in (
                    ("s", verdict.stopped),
                    ("f", verdict.failed),
                    ("u", verdict.undefined),
                    ("n", verdict.not_compared),
                )
                if plane >> case & 1
            ),
            "p",
        )
        rows.append(
            CaseRow(
                index=case,
                label=case_name(expectation, case),
                step=step_place(expectation, case, follows),
                inputs=[data["in"][p.name] for p in spec.inputs],
                expected=[data["expected"][p.name] for p in spec.outputs],
                actual=[data["actual"][p.name] for p in spec.outputs],
                wrong=[p.name in data["wrong"] for p in spec.outputs],
                run=data["run"],
                cell=cell,
                group=data["group"],
            )
        )
    return rows
