"""The ledger of marks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class MarkEntry:
    """One entry of the ledger. `kind` is computed, late, held, override, manual or lifted; `value` in marks, None where
    there is none."""

    handin_id: int
    task_id: int
    student_id: int | None
    kind: str
    value: float | None
    reason: str
    person_id: int | None
    at: datetime
    result_id: int | None


_COLUMNS = "m.handin_id, m.task_id, m.student_id, m.kind, m.value, m.reason, m.person_id, m.at, m.result_id"


def add_mark(
    c: Connection, handin_id: int, task_id: int, kind: str, value: float | None, reason: str,
    result_id: int | None = None, person_id: int | None = None, student_id: int | None = None,
) -> None:  # fmt: skip
    """Add an entry to the ledger."""
    c.run(
        "INSERT INTO mark_entry (handin_id, task_id, student_id, kind, value, reason, result_id, person_id, at)"
        " VALUES (%s, %s, %s, %s, %s, %s, %s, %s, UTC_TIMESTAMP(6))",
        handin_id, task_id, student_id, kind, value, reason[:500], result_id, person_id,
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class MachineEntry:
    """What the machine says of a mark: `kind` is computed, late or held."""

    handin_id: int
    task_id: int
    kind: str
    value: float | None
    reason: str
    result_id: int | None


def add_machine_entries(c: Connection, entries: Sequence[MachineEntry]) -> None:
    """Add entries to the ledger, in this order."""
    c.many(
        "INSERT INTO mark_entry (handin_id, task_id, kind, value, reason, result_id, at) VALUES (%s, %s, %s, %s, %s,"
        " %s, UTC_TIMESTAMP(6))",
        [(e.handin_id, e.task_id, e.kind, e.value, e.reason[:500], e.result_id) for e in entries],
    )


def machine_entries(c: Connection, handin_ids: Sequence[int]) -> dict[tuple[int, int], list[MachineEntry]]:
    """What the machine entered for some hand-ins by (hand-in, task), oldest first."""
    found: dict[tuple[int, int], list[MachineEntry]] = {}
    if handin_ids:
        marks = ", ".join(["%s"] * len(handin_ids))
        rows = c.all(
            MachineEntry,
            "SELECT handin_id, task_id, kind, value, reason, result_id FROM mark_entry WHERE handin_id IN"
            f" ({marks}) AND kind IN ('computed', 'late', 'held') ORDER BY id",
            *handin_ids,
        )
        for row in rows:
            found.setdefault((row.handin_id, row.task_id), []).append(row)
    return found


def by_people(c: Connection, handin_id: int, task_id: int) -> list[MarkEntry]:
    """What people entered for one hand-in in one task, oldest first."""
    return c.all(
        MarkEntry,
        f"SELECT {_COLUMNS} FROM mark_entry m WHERE m.handin_id = %s AND m.task_id = %s AND m.kind IN ('override',"
        " 'manual', 'lifted') ORDER BY m.id",
        handin_id,
        task_id,
    )


def marks_of(c: Connection, lab_id: int) -> dict[tuple[int, int], list[MarkEntry]]:
    """The ledger of a lab by (hand-in, task), oldest first."""
    rows = c.all(
        MarkEntry,
        f"SELECT {_COLUMNS} FROM mark_entry m JOIN handin h ON h.id = m.handin_id WHERE h.lab_id = %s ORDER BY m.id",
        lab_id,
    )
    found: dict[tuple[int, int], list[MarkEntry]] = {}
    for row in rows:
        found.setdefault((row.handin_id, row.task_id), []).append(row)
    return found
