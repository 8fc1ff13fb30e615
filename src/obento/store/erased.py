"""What of people who were erased still counts in sums."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import astuple, dataclass

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class ErasedOutcome:
    """What somebody who was erased came to in one task. `student_id` is that of the empty line in the class list;
    `failed` are the cases that were wrong, packed, under that version of the spec."""

    student_id: int
    task_id: int
    spec_version_id: int | None
    kind: str
    mark: float | None
    title: str
    failed: bytes


OUTCOME_COLUMNS = "student_id, task_id, spec_version_id, kind, mark, title, failed"


def keep_outcomes(c: Connection, outcomes: Sequence[ErasedOutcome]) -> None:
    c.many(
        f"REPLACE INTO erased_outcome ({OUTCOME_COLUMNS}) VALUES (%s, %s, %s, %s, %s, %s, %s)",
        [astuple(o) for o in outcomes],
    )


def outcomes_of_task(c: Connection, task_id: int) -> list[ErasedOutcome]:
    return c.all(
        ErasedOutcome, f"SELECT {OUTCOME_COLUMNS} FROM erased_outcome WHERE task_id = %s ORDER BY student_id", task_id
    )
