"""What was done, by whom and when."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class AuditEntry:
    at: datetime
    person_id: int | None
    action: str
    subject: str
    detail: str


def note(c: Connection, person_id: int | None, action: str, subject: str, detail: object = "") -> None:
    text = detail if isinstance(detail, str) else json.dumps(detail, ensure_ascii=False)
    c.run(
        "INSERT INTO audit (at, person_id, action, subject, detail) VALUES (UTC_TIMESTAMP(6), %s, %s, %s, %s)",
        person_id, action, subject[:200], text[:60_000],
    )  # fmt: skip


def of_subjects(c: Connection, subjects: Sequence[str]) -> list[AuditEntry]:
    marks = ", ".join(["%s"] * len(subjects))
    return c.all(
        AuditEntry,
        f"SELECT at, person_id, action, subject, detail FROM audit WHERE subject IN ({marks}) ORDER BY id",
        *subjects,
    )
