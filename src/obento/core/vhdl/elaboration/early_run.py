"""The run in which constants are worked out while a design is elaborated: it has no time, and reports are kept for
later."""

from __future__ import annotations

from typing import Any

from obento.core.limits import LimitReached, Limits
from obento.core.vhdl.runtime.run import SEVERITIES, Report, Run


class EarlyBench:
    """What elaboration may use of a bench: files to read. What is reported while constants are worked out is kept for
    the run."""

    def __init__(self, folder: Any) -> None:
        self.folder = folder
        self.reports: list[Report] = []

    def say(self, text: str, position: int) -> None:
        """A line on the console."""
        self.reports.append((-1, text, position))

    def report(self, severity: str, text: str, position: int) -> None:
        """A report or a failed assertion; none of them ends the elaboration."""
        self.reports.append((SEVERITIES.index(severity), text, position))

    def came_to(self, position: int) -> None:
        """An assertion is looked at."""

    def ended(self, position: int) -> None:
        """The statement that would end a run."""


class _Host:
    """The kernel that functions see while constants are worked out."""

    def __init__(self, limits: Limits, bench: EarlyBench) -> None:
        self.limits = limits
        self.bench = bench
        self.now = self.rounds = self.depth = 0
        self.most_rounds = 256
        self.words: list[Any] = []
        self.changed = None

    def many_rounds(self, position: int) -> None:
        if self.rounds > self.limits.constant_steps * 20:
            raise LimitReached("working out a constant takes too long", position, "does a loop or recursion never end?")
        self.most_rounds = self.rounds + 4096


def early_run(limits: Limits, bench: EarlyBench) -> Run:
    """A run for functions that are called while constants are worked out."""
    run = Run(lambda: None, lambda run: None)
    run.failing = len(SEVERITIES)
    run.host = _Host(limits, bench)  # type: ignore[assignment]
    run.files = type(run.files)(bench)
    return run
