"""What a worker of `obento check` does: check a hand-in and write its part of the result files."""

from __future__ import annotations

from dataclasses import dataclass, replace

from obento.core.check.judging.outcome import Checked
from obento.core.check.report import Shown
from obento.export.result_files import JsonResult, JunitResult
from obento.runner.worker import Task, expected, run_task


@dataclass(frozen=True, slots=True)
class ReportTask:
    """A hand-in to be checked, whose it is, and which parts are wanted with which cases."""

    task: Task
    name: str
    json: bool
    junit: bool
    cases: Shown


@dataclass(frozen=True, slots=True)
class Reported:
    """An outcome without what only its parts of the files need; the parts are None where they are not wanted."""

    checked: Checked
    json: str | None
    junit: str | None


def run_reported(asked: ReportTask) -> Reported:
    """Check a hand-in and write its parts."""
    return reported(asked, run_task(asked.task))


def reported(asked: ReportTask, checked: Checked) -> Reported:
    """The parts of an outcome, and what else is told of it."""
    expectation = expected(asked.task)
    return Reported(
        _light(checked),
        JsonResult(expectation, asked.cases).part(asked.name, checked) if asked.json else None,
        JunitResult(expectation, asked.cases).part(asked.name, checked) if asked.junit else None,
    )


def _light(checked: Checked) -> Checked:
    """An outcome that says how each case went, and not what was seen there."""
    if checked.verdict is None:
        return checked
    verdict = replace(checked.verdict, outputs={}, shown={}, expected={}, failing_runs=[], ends=[])
    return replace(checked, verdict=verdict)
