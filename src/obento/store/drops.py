"""What was taken in at once, and when it was received."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from obento.store.connection import Connection
from obento.store.handins import ATTEMPT_COLUMNS, Attempt
from obento.store.records import Json


@dataclass(frozen=True, slots=True)
class Drop:
    """What was taken in at once, for which task (None: all), what of it was left out, and how the times of receipt are
    known (`times`: upload, archive in a `zone`, or given)."""

    id: int
    name: str
    at: datetime
    files: int
    left_out: Annotated[list[str], Json()]
    task_id: int | None
    times: str
    zone: str
    is_confirmed: bool


def add_drop(c: Connection, lab_id: int, person_id: int, name: str, task_id: int | None, times: str) -> int:
    """Note a drop that begins; what was received `given` times is vouched for by whoever gave them."""
    return c.insert(
        "INSERT INTO intake_drop (lab_id, person_id, name, at, files, left_out, task_id, times, is_confirmed) VALUES"
        " (%s, %s, %s, UTC_TIMESTAMP(6), 0, '[]', %s, %s, %s)",
        lab_id,
        person_id,
        name[:300],
        task_id,
        times,
        times == "given",
    )


def end_drop(c: Connection, drop_id: int, files: int, left_out: list[str]) -> None:
    """Note what a drop held and what of it was left out."""
    c.run(
        "UPDATE intake_drop SET files = %s, left_out = %s WHERE id = %s",
        files,
        json.dumps(left_out, ensure_ascii=False),
        drop_id,
    )


_DROP = "id, name, at, files, left_out, task_id, times, zone, is_confirmed"


def drops_of(c: Connection, lab_id: int) -> list[Drop]:
    return c.all(
        Drop, f"SELECT {_DROP} FROM intake_drop WHERE lab_id = %s AND gone_at IS NULL ORDER BY id DESC", lab_id
    )


def drop(c: Connection, drop_id: int) -> Drop | None:
    return c.one(Drop, f"SELECT {_DROP} FROM intake_drop WHERE id = %s", drop_id)


def entry_times(c: Connection, drop_id: int) -> tuple[datetime | None, datetime | None]:
    """When the first and the last of what came in a drop was packed, by the archive, in no zone."""
    row = c.row("SELECT MIN(entry_time) AS first, MAX(entry_time) AS last FROM attempt WHERE drop_id = %s", drop_id)
    return (row["first"], row["last"]) if row is not None else (None, None)


def lab_of_drop(c: Connection, drop_id: int) -> int | None:
    """The lab that a drop was for."""
    found: int | None = c.value("SELECT lab_id FROM intake_drop WHERE id = %s", drop_id)
    return found


def set_drop_times(
    c: Connection, drop_id: int, times: str, zone: str, received: Sequence[tuple[int, datetime]]
) -> None:
    """Say when what came in one drop was received (attempt, time), and how that is known."""
    c.run("UPDATE intake_drop SET times = %s, zone = %s, is_confirmed = TRUE WHERE id = %s", times, zone, drop_id)
    c.many(
        "UPDATE attempt SET received_at = %s WHERE id = %s AND NOT is_received_by_hand",
        [(at, attempt_id) for attempt_id, at in received],
    )


def attempts_of_drop(c: Connection, drop_id: int) -> list[Attempt]:
    return c.all(Attempt, f"SELECT {ATTEMPT_COLUMNS} FROM attempt a WHERE a.drop_id = %s ORDER BY a.id", drop_id)
