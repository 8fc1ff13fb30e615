"""The marks of a lab as a table, with the columns that somebody wants, in their order."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from obento.server.feedback.models import FeedbackStudent
from obento.server.feedback.outcomes import LabOutcomes
from obento.server.feedback.overview import student_rows
from obento.store import people

Cell = str | int | float
_LETTER = {"none": "", "released": "released", "read": "read", "withdrawn": "taken back"}


class MarksTable:
    """`columns` are all names that can be asked for: the roster's own, then what is known of each student."""

    def __init__(self, outcomes: LabOutcomes) -> None:
        self._outcomes = outcomes
        self._students = student_rows(outcomes)
        self._given = people.given_of(outcomes.c, outcomes.lab.class_id)
        self._roster = list(dict.fromkeys(k for g in self._given.values() for k in g)) or ["number", "name"]
        self._of: dict[str, Callable[[FeedbackStudent], Cell]] = {}
        for name in self._roster:
            self._of[name] = lambda s, name=name: self._own(s).get(name, "")  # type: ignore[misc]
        titles = [t.task.title for t in outcomes.tasks]
        for i, title in enumerate(titles):
            self._of[title] = lambda s, i=i: _number(s.marks[i])  # type: ignore[misc]
        self._of |= {
            "sum": lambda s: _number(s.sum),
            "late": lambda s: "late" if s.late else "",
            "remark": lambda s: _remark(s),
        }
        self.usual = list(self._of)
        for i, (title, task) in enumerate(zip(titles, outcomes.tasks, strict=True)):
            results = task.state.by_handin
            self._of[f"{title}: right"] = lambda s, r=results: r[s.handin_id].passed if s.handin_id in r else ""  # type: ignore[misc]
            self._of[f"{title}: of"] = lambda s, r=results: r[s.handin_id].total if s.handin_id in r else ""  # type: ignore[misc]
            self._of[f"{title}: by hand"] = lambda s, i=i: "yes" if s.by_hand[i] else ""  # type: ignore[misc]
        rows_by_id = {r.id: r for t in outcomes.tasks[:1] for r in t.every}
        self._of |= {
            "attempt": lambda s: rows_by_id[s.handin_id].attempt or 0 if s.handin_id in rows_by_id else "",
            "received": lambda s: (
                f"{rows_by_id[s.handin_id].received_at:%Y-%m-%d %H:%M}" if s.handin_id in rows_by_id else ""
            ),
            "team": lambda s: "team" if s.team else "",
            "letter": lambda s: _LETTER[s.letter],
        }

    @property
    def columns(self) -> list[str]:
        return list(self._of)

    def rows(self, columns: Sequence[str]) -> list[list[Cell]]:
        """One row for each student; unknown columns are passed over by the caller."""
        return [[self._of[name](s) for name in columns] for s in self._students]

    def _own(self, s: FeedbackStudent) -> dict[str, Any]:
        return self._given.get(s.student_id) or {"number": s.number, "name": s.name}


def _remark(s: FeedbackStudent) -> str:
    if s.excused is not None:
        return f"excused: {s.excused}" if s.excused else "excused"
    return "nothing handed in" if s.handin_id is None else "held" if any(s.held) else ""


def _number(value: float | None) -> Cell:
    return "" if value is None else int(value) if float(value).is_integer() else value
