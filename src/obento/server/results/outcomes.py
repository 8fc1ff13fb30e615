"""Everything about a task's outcomes that the screens draw from, read once."""

from __future__ import annotations

from collections.abc import Container, Iterable
from functools import cached_property

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.verdict import Verdict
from obento.server.cases.summary import OutcomeSummary, kept_summary
from obento.server.course.task_state import TaskState, task_state
from obento.server.errors import not_found
from obento.server.marks.lateness import DueDates
from obento.server.marks.mark import Mark, settle
from obento.server.specs.opened import OpenSpec
from obento.store import comments, handins, marks, people, repairs, results
from obento.store.connection import Connection
from obento.store.course import CurrentTask, Lab
from obento.store.marks import MarkEntry
from obento.store.packing import CasePlanes
from obento.store.results import KeptOutcomes, Result


class HandedIn:
    """What all tasks of a lab have in common: its hand-ins, attempts, and ledger of marks."""

    def __init__(self, c: Connection, lab_id: int) -> None:
        self.every = handins.handins_of(c, lab_id)
        self.attempts = handins.lab_attempts(c, lab_id)
        self.ledger = marks.marks_of(c, lab_id)


class TaskOutcomes:
    """A task of a lab with its hand-ins, outcomes, comments, marks and known changes. Verdicts are read when they are
    asked for."""

    def __init__(
        self,
        c: Connection,
        lab: Lab,
        task: CurrentTask,
        spec: OpenSpec,
        kept: KeptOutcomes,
        handed_in: HandedIn | None = None,
    ) -> None:
        handed_in = handed_in or HandedIn(c, lab.id)
        self.c = c
        self.lab = lab
        self.task = task
        self.spec = spec
        self.expectation: Expectation = spec.expectation
        self.every = handed_in.every
        self.by_handin = {r.id: r for r in self.every}
        self.state: TaskState = task_state(c, task, handed_in.attempts, kept)
        shown = [r.id for r in self.state.by_handin.values()]
        self.bindings = results.bindings_of(c, shown)
        self.comments = comments.comments_of(c, task.id)
        self.repairs = repairs.repairs_of(c, shown)
        self.ledger = handed_in.ledger
        self._kept = kept
        self._verdicts: dict[int, Verdict | None] = {}
        self._summaries: dict[int, OutcomeSummary] = {}

    def name(self, handin_id: int) -> str:
        """Whose hand-in it is, as far as that is settled; namesakes with their numbers."""
        row = self.by_handin[handin_id]
        if row.student_number and row.student_name in self._namesakes:
            return f"{row.who} {row.student_number}"
        return row.who or row.label

    @cached_property
    def _namesakes(self) -> frozenset[str]:
        return people.namesakes(self.c, self.lab.class_id)

    def keep_only(self, handin_ids: Container[int]) -> None:
        """Forget all other hand-ins."""
        self.every = [r for r in self.every if r.id in handin_ids]
        self.by_handin = {r.id: r for r in self.every}
        for kept in (self.state.by_handin, self.state.attempts, self.state.counting):
            for handin_id in [i for i in kept if i not in handin_ids]:
                del kept[handin_id]

    def mark_if_any(self, handin_id: int) -> Mark | None:
        """What its ledger comes to; None where nothing was handed in for this task and nobody gave a mark."""
        mark = self.mark(handin_id)
        return mark if handin_id in self.state.attempts or mark.by_hand else None

    def mark(self, handin_id: int) -> Mark:
        """What its ledger comes to."""
        return settle(self.entries(handin_id))

    def entries(self, handin_id: int) -> list[MarkEntry]:
        """Its ledger."""
        return self.ledger.get((handin_id, self.task.id), [])

    def checked(self, handin_id: int) -> Result:
        """The outcome of a hand-in that was checked.

        Raises
        ------
        Trouble
            If it was not.
        """
        result = self.state.by_handin.get(handin_id)
        if result is None or result.status != "checked":
            raise not_found("checked hand-in")
        return result

    def verdict(self, result: Result) -> Verdict:
        """The stored verdict of an outcome that was checked."""
        found = self.verdict_if_run(result)
        assert found is not None
        return found

    def verdict_if_run(self, result: Result) -> Verdict | None:
        """The stored verdict of an outcome; None where nothing was run."""
        if result.id not in self._verdicts:
            self._verdicts[result.id] = results.load_verdict(self.c, result, self.expectation, self._kept.planes)
        return self._verdicts[result.id]

    def verdict_of(self, handin_id: int) -> Verdict:
        """The stored verdict of a hand-in that was checked."""
        return self.verdict(self.state.by_handin[handin_id])

    @cached_property
    def due(self) -> DueDates:
        """Until when each hand-in of the lab may come."""
        return DueDates(self.c, self.lab)

    @cached_property
    def cases(self) -> dict[str, CasePlanes]:
        """The cases of all outcomes shown, by what they are kept by."""
        return self.cases_of(self.state.by_handin.values())

    def cases_of(self, rows: Iterable[Result]) -> dict[str, CasePlanes]:
        """The cases of some outcomes."""
        return self._kept.planes.cases(self.c, {r.planes: r.total for r in rows})

    def summary(self, result: Result) -> OutcomeSummary:
        """What a class's pages show of an outcome that was checked."""
        if result.id not in self._summaries:
            self._summaries[result.id] = kept_summary(self.c, result, self.expectation, self._kept)
        return self._summaries[result.id]

    def astray(self, result: Result) -> int:
        """The cases that are not right; of clocked hand-ins those steps that do not only follow from earlier ones."""
        if self.expectation.cases.stimulus is None:
            return self.cases[result.planes].wrong
        return int(self.summary(result).first_wrong, 16)
