"""A lab with all tasks whose spec is right, read once for feedback."""

from __future__ import annotations

from obento.server.marks.mark import Mark
from obento.server.results.outcomes import HandedIn, TaskOutcomes
from obento.server.specs.opened import OpenedSpecs
from obento.store import course, drops, owners, people
from obento.store.connection import Connection
from obento.store.course import Lab
from obento.store.erased import ErasedOutcome, outcomes_of_task
from obento.store.handins import HandinRow
from obento.store.results import KeptOutcomes


class LabOutcomes:
    """The tasks of a lab, its students and teams, and whose hand-in is whose."""

    def __init__(self, c: Connection, lab: Lab, opened: OpenedSpecs, kept: KeptOutcomes) -> None:
        self.c = c
        self.lab = lab
        handed_in = HandedIn(c, lab.id)
        self.tasks = [
            TaskOutcomes(c, lab, t, opened.current(c, t.id), kept, handed_in)
            for t in course.tasks_of(c, lab.id)
            if t.is_right
        ]
        self.students = people.students(c, lab.class_id)
        self.teams = owners.teams_of(c, lab.id)
        self.excused = course.excused(c, lab.id)
        self._is_whole = True
        self.handin_of: dict[int, HandinRow] = {}
        for row in self.tasks[0].every if self.tasks else []:
            if row.student_id is not None:
                self.handin_of[row.student_id] = row
            for member in self.teams.get(row.team_id or 0, []):
                self.handin_of.setdefault(member.id, row)

    def of_group(self, group: str) -> LabOutcomes:
        """The same of one group of the class list alone; all of it without a group."""
        if group:
            self._is_whole = False
            self.students = [s for s in self.students if s.group_name == group]
            theirs = {row.id for s in self.students if (row := self.handin_of.get(s.id)) is not None}
            for task in self.tasks:
                task.keep_only(theirs)
        return self

    def erased(self, task_id: int) -> list[ErasedOutcome]:
        """What people who were erased came to in a task; none in a group, which nobody knows of them any more."""
        return outcomes_of_task(self.c, task_id) if self._is_whole else []

    @property
    def unconfirmed_drops(self) -> list[str]:
        """The drops of which nobody said yet when they were received, where that can matter."""
        if self.lab.due_at is None:
            return []
        return [d.name for d in drops.drops_of(self.c, self.lab.id) if not d.is_confirmed]

    def not_checked(self, student_id: int) -> list[str]:
        """The tasks in which a student's hand-in was not checked by the current version: no letter can speak of
        them."""
        row = self.handin_of.get(student_id)
        if row is None:
            return []
        return [t.task.title for t in self.tasks if row.id in t.state.attempts and row.id not in t.state.by_handin]

    def marks(self, student_id: int) -> list[Mark | None]:
        """A student's mark in each task; None where nothing was handed in."""
        row = self.handin_of.get(student_id)
        return [t.mark_if_any(row.id) if row else None for t in self.tasks]
