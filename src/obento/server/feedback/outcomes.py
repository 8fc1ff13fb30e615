"""A lab with all tasks whose spec is right, read once for feedback."""

from __future__ import annotations

from obento.server.marks.mark import Mark
from obento.server.results.outcomes import TaskOutcomes
from obento.server.specs.opened import OpenedSpecs
from obento.store import course, handins, people
from obento.store.connection import Connection
from obento.store.course import Lab
from obento.store.handins import HandinRow
from obento.store.results import KeptOutcomes


class LabOutcomes:
    """The tasks of a lab, its students and teams, and whose hand-in is whose."""

    def __init__(self, c: Connection, lab: Lab, opened: OpenedSpecs, kept: KeptOutcomes) -> None:
        self.c = c
        self.lab = lab
        self.tasks = [
            TaskOutcomes(c, lab, t, opened.current(c, t.id), kept) for t in course.tasks_of(c, lab.id) if t.is_right
        ]
        self.students = people.students(c, lab.class_id)
        self.teams = handins.teams_of(c, lab.id)
        self.handin_of: dict[int, HandinRow] = {}
        for row in self.tasks[0].rows if self.tasks else []:
            if row.student_id is not None:
                self.handin_of[row.student_id] = row
            for member in self.teams.get(row.team_id or 0, []):
                self.handin_of.setdefault(member.id, row)

    def marks(self, student_id: int) -> list[Mark | None]:
        """A student's mark in each task; None where nothing was handed in."""
        row = self.handin_of.get(student_id)
        return [t.mark(row.id) if row else None for t in self.tasks]
