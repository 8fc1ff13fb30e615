"""Of each hand-in the outcome that counts."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from obento.store import comments, handins, people, results
from obento.store.connection import Connection
from obento.store.course import CurrentTask, Lab
from obento.store.handins import HandinHead, HandinRow
from obento.store.people import Student
from obento.store.results import KeptOutcomes, Result

Attempted = HandinRow | HandinHead
"""A hand-in with whose it is and the attempt that counts."""


@dataclass(slots=True)
class TaskState:
    """Outcomes of a task under its current spec, by hand-in."""

    by_handin: dict[int, Result]
    waiting: int

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


def task_state(
    c: Connection, task: CurrentTask, rows: Sequence[Attempted], which_attempt: str, kept: KeptOutcomes
) -> TaskState:
    """Of each hand-in the outcome that counts."""
    if task.version_id is None:
        return TaskState({}, len(rows))
    by_attempt = {r.attempt_id: r for r in results.results_of(c, task.id, task.version_id, kept.rows)}
    chosen: dict[int, Result] = {}
    best: dict[int, Result] = {}
    for result in by_attempt.values():
        held = best.get(result.handin_id)
        if held is None or (result.passed, result.attempt) > (held.passed, held.attempt):
            best[result.handin_id] = result
    for row in rows:
        found = best.get(row.id) if which_attempt == "best" else by_attempt.get(row.attempt_id or 0)
        if found is not None:
            chosen[row.id] = found
    return TaskState(chosen, sum(r.attempt_id is not None and r.id not in chosen for r in rows))


def open_clusters(c: Connection, task_id: int, state: TaskState) -> int:
    """Clusters that are not right and have no comment yet."""
    known = comments.comments_of(c, task_id)
    keys = {state.cluster_key(r) for r in state.by_handin.values() if state.kind(r) in ("wrong", "rules")}
    return sum((key, 0) not in known or not known[key, 0].text.strip() for key in keys)


def handed_in(c: Connection, lab: Lab, rows: Sequence[Attempted]) -> set[int]:
    """The students who have handed in something, alone or in a team."""
    there = {r.student_id for r in rows if r.student_id is not None and r.attempt_id is not None}
    teams = handins.teams_of(c, lab.id)
    for row in rows:
        if row.team_id is not None and row.attempt_id is not None:
            there |= {m.id for m in teams.get(row.team_id, [])}
    return there


def missing_students(c: Connection, lab: Lab, rows: Sequence[Attempted]) -> list[Student]:
    """Students of the class who have handed in nothing, alone or in a team."""
    there = handed_in(c, lab, rows)
    return [s for s in people.students(c, lab.class_id) if s.id not in there]
