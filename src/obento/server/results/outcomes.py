"""Everything about a task's outcomes that the screens draw from, read once."""

from __future__ import annotations

from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.divergence import diverge
from obento.core.check.judging.verdict import Verdict
from obento.server.course.task_state import TaskState, task_state
from obento.server.errors import not_found
from obento.server.marks.mark import Mark, settle
from obento.server.specs.opened import OpenSpec
from obento.store import comments, handins, marks, repairs, results
from obento.store.connection import Connection
from obento.store.course import CurrentTask, Lab
from obento.store.results import Result


class TaskOutcomes:
    """A task of a lab with its hand-ins, outcomes, comments, marks and known changes. Verdicts are read when they are
    asked for."""

    def __init__(self, c: Connection, lab: Lab, task: CurrentTask, spec: OpenSpec) -> None:
        self.c = c
        self.lab = lab
        self.task = task
        self.spec = spec
        self.expectation: Expectation = spec.expectation
        self.rows = handins.handins_of(c, lab.id)
        self.by_handin = {r.id: r for r in self.rows}
        self.state: TaskState = task_state(c, task, self.rows, lab.which_attempt)
        shown = [r.id for r in self.state.by_handin.values()]
        self.bindings = results.bindings_of(c, shown)
        self.comments = comments.comments_of(c, task.id)
        self.repairs = repairs.repairs_of(c, shown)
        self.ledger = marks.marks_of(c, lab.id)
        self._verdicts: dict[int, Verdict] = {}
        self._first_of: dict[str, bytes] = {}

    def name(self, handin_id: int) -> str:
        """Whose hand-in it is, as far as that is settled."""
        row = self.by_handin[handin_id]
        return row.who or row.label

    def mark(self, handin_id: int) -> Mark:
        """What its ledger comes to."""
        return settle(self.ledger.get((handin_id, self.task.id), []))

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
        """The stored verdict of an outcome."""
        found = self._verdicts.get(result.id)
        if found is None:
            found = self._verdicts[result.id] = results.load_verdict(self.c, result, self.expectation)
        return found

    def verdict_of(self, handin_id: int) -> Verdict:
        """The stored verdict of a hand-in that was checked."""
        return self.verdict(self.state.by_handin[handin_id])

    def astray(self, result: Result) -> bytes:
        """The cases that are not right, packed; of clocked hand-ins those steps that do not only follow from earlier
        ones."""
        count = self.expectation.cases.count
        if self.expectation.cases.stimulus is None:
            return results.pack(((1 << count) - 1) & ~results.unpack(result.plane_right), count)
        known = self._first_of.get(result.cluster)
        if known is None:
            known = results.pack(diverge(self.expectation, self.verdict(result)).first, count)
            self._first_of[result.cluster] = known
        return known
