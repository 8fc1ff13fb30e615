"""Of each hand-in the outcome that counts."""

from __future__ import annotations

from collections.abc import Container, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from obento.store import comments, course, owners, people, results
from obento.store.connection import Connection
from obento.store.course import CurrentTask, Lab
from obento.store.handins import Attempt, HandinHead, HandinRow, LabAttempts
from obento.store.people import Student
from obento.store.results import KeptOutcomes, Result

Attempted = HandinRow | HandinHead
"""A hand-in with whose it is and its newest attempt."""


@dataclass(slots=True)
class TaskState:
    """Outcomes of a task under its current spec, by hand-in; each has the number of its attempt among those for this
    task. `attempts` are these, in the order they came in; a hand-in without any has nothing for this task."""

    by_handin: dict[int, Result]
    attempts: dict[int, list[Attempt]]
    counting: dict[int, Attempt]
    """The attempt that counts; where the best one does and none was checked yet, the last."""

    @property
    def waiting(self) -> int:
        """How many hand-ins have something for this task that was not checked yet."""
        return sum(handin not in self.by_handin for handin in self.attempts)

    def kind(self, row: Result) -> str:
        """right, rules (right, but a rule is broken), wrong or unchecked."""
        if row.status != "checked":
            return "unchecked"
        if row.passed < row.total:
            return "wrong"
        return "right" if row.rules_ok else "rules"

    def counts(self) -> dict[str, int]:
        found = {"right": 0, "rules": 0, "wrong": 0, "unchecked": 0}
        for row in self.by_handin.values():
            found[self.kind(row)] += 1
        return found

    def cluster_key(self, row: Result) -> str:
        kind = self.kind(row)
        return (
            f"{row.cluster}:rules"
            if row.status == "checked" and not row.rules_ok and kind in ("rules", "wrong")
            else str(row.cluster)
        )


def task_state(c: Connection, task: CurrentTask, attempts: LabAttempts, kept: KeptOutcomes) -> TaskState:
    """Of each hand-in what it has for one task, and the outcome that counts."""
    known = results.results_of(c, task.id, task.version_id, kept.rows) if task.version_id is not None else []
    outcomes = {r.attempt_id: r for r in known}
    state = TaskState({}, {}, {})
    for handin_id, every in attempts.by_handin.items():
        own = [a for a in every if is_for(a, task.id, outcomes.get(a.id), attempts.units)]
        if not own:
            continue
        state.attempts[handin_id] = own
        counting = state.counting[handin_id] = _counting(own, outcomes, attempts)
        found = outcomes.get(counting.id)
        if found is not None:
            number = own.index(counting) + 1
            state.by_handin[handin_id] = found if found.attempt == number else replace(found, attempt=number)
    return state


def is_for(attempt: Attempt, task_id: int, outcome: Result | None, units: Mapping[int, str]) -> bool:
    """Whether an attempt is for a task: it was dropped for it, or for the whole lab and holds its unit (`units`, by
    task). As long as nobody has looked, it may."""
    if attempt.task_id is not None:
        return attempt.task_id == task_id
    if len(units) < 2 or outcome is None:
        return True
    return found_something(outcome) and not is_anothers(outcome, task_id, units)


def is_anothers(outcome: Result, task_id: int, units: Mapping[int, str]) -> bool:
    """Whether the unit that was taken for a task, since there is no other, is called as another task asks for."""
    taken = outcome.unit.casefold()
    own = units.get(task_id, "").casefold()
    return taken != own and any(taken == unit.casefold() for task, unit in units.items() if task != task_id and unit)


def found_something(outcome: Result) -> bool:
    """Whether there is a unit for the task in what was handed in, however wrong."""
    return bool(outcome.unit) or outcome.status not in ("no_unit", "unreadable", "empty") or bool(outcome.detail.twice)


def _counting(own: list[Attempt], outcomes: dict[int, Result], attempts: LabAttempts) -> Attempt:
    """The attempt that counts. As long as nobody said of each of them when it was received, they come in the order in
    which they were taken in: the time of an upload is not held against one that the archive gives."""
    by_number = any(a.id in attempts.unvouched for a in own)

    def moment(a: Attempt) -> tuple[datetime, int]:
        return (datetime.min if by_number else a.received_at, a.number)

    if attempts.which == "first":
        return min(own, key=moment)
    checked = [a for a in own if a.id in outcomes] if attempts.which == "best" else []
    if checked:
        return max(checked, key=lambda a: (outcomes[a.id].passed, a.number))
    return max(own, key=moment)


def open_clusters(c: Connection, task_id: int, state: TaskState) -> int:
    """Clusters that are not right and have no comment yet."""
    known = comments.comments_of(c, task_id)
    keys = {state.cluster_key(r) for r in state.by_handin.values() if state.kind(r) in ("wrong", "rules")}
    return sum((key, 0) not in known or not known[key, 0].text.strip() for key in keys)


def handed_in(c: Connection, lab: Lab, rows: Sequence[Attempted], within: Container[int] | None = None) -> set[int]:
    """The students who have handed in something, alone or in a team; `within` says which hand-ins are looked at."""
    mine = [r for r in rows if r.attempt_id is not None and (within is None or r.id in within)]
    there = {r.student_id for r in mine if r.student_id is not None}
    teams = owners.teams_of(c, lab.id)
    for row in mine:
        if row.team_id is not None:
            there |= {m.id for m in teams.get(row.team_id, [])}
    return there


def missing_students(
    c: Connection, lab: Lab, rows: Sequence[Attempted], within: Container[int] | None = None
) -> list[Student]:
    """Students of the class who have handed in nothing, alone or in a team, and are not excused."""
    there = handed_in(c, lab, rows, within) | course.excused(c, lab.id).keys()
    return [s for s in people.students(c, lab.class_id) if s.id not in there]
