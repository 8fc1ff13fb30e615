"""Letters, links to them, and their delivery."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any

from obento.store.connection import Connection
from obento.store.records import Json


@dataclass(frozen=True, slots=True)
class LetterRow:
    """The newest letter of a student, what stands in it, and whether it was read and delivered (`delivery` is queued,
    sent or failed, `trouble` what the mail server said last)."""

    id: int
    student_id: int
    number: int
    frozen: Annotated[dict[str, Any], Json()]
    released_at: datetime
    withdrawn_at: datetime | None
    read_at: datetime | None
    delivery: str | None
    trouble: str | None


@dataclass(frozen=True, slots=True)
class Page:
    """The letter behind a link; `frozen` is its text as it was released, JSON."""

    id: int
    frozen: str
    number: int
    released_at: datetime
    expires_at: datetime


@dataclass(frozen=True, slots=True)
class Earlier:
    """A letter that was corrected since; `frozen` is its text as it was released, JSON."""

    frozen: str
    number: int
    released_at: datetime


@dataclass(frozen=True, slots=True)
class QueuedDelivery:
    """A link that waits to be sent; `school` and `lab` are those of its letter."""

    id: int
    address: str
    token: str
    tries: int
    frozen: Annotated[dict[str, Any], Json()]


def add_letter(c: Connection, lab_id: int, student_id: int, frozen: dict[str, Any], person_id: int) -> int:
    """Freeze a letter; one that was released before is corrected by it, never changed."""
    before = c.row(
        "SELECT id, number FROM letter WHERE lab_id = %s AND student_id = %s ORDER BY number DESC LIMIT 1 FOR UPDATE",
        lab_id,
        student_id,
    )
    return c.insert(
        "INSERT INTO letter (lab_id, student_id, number, corrects, frozen, person_id, released_at)"
        " VALUES (%s, %s, %s, %s, %s, %s, UTC_TIMESTAMP(6))",
        lab_id, student_id, (before["number"] if before else 0) + 1, before["id"] if before else None,
        json.dumps(frozen, ensure_ascii=False), person_id,
    )  # fmt: skip


def letters_of(c: Connection, lab_id: int) -> dict[int, LetterRow]:
    """The newest letter of each student, with whether it was read and delivered."""
    rows = c.all(
        LetterRow,
        "SELECT l.id, l.student_id, l.number, l.frozen, l.released_at, l.withdrawn_at,"
        " l.read_at,"
        " (SELECT d.state FROM delivery d WHERE d.letter_id = l.id ORDER BY d.id DESC LIMIT 1) AS delivery,"
        " (SELECT d.trouble FROM delivery d WHERE d.letter_id = l.id ORDER BY d.id DESC LIMIT 1) AS trouble"
        " FROM letter l WHERE l.lab_id = %s ORDER BY l.number",
        lab_id,
    )
    return {r.student_id: r for r in rows}


def withdraw_unread(c: Connection, lab_id: int) -> int:
    """Take back letters whose page nobody has opened; gives how many."""
    unread = [
        r["id"]
        for r in c.rows(
            "SELECT l.id FROM letter l WHERE l.lab_id = %s AND l.withdrawn_at IS NULL AND l.read_at IS NULL FOR UPDATE",
            lab_id,
        )
    ]
    for letter_id in unread:
        close(c, letter_id, "taken back")
    return len(unread)


def letters_on(c: Connection, lab_id: int, student_ids: Sequence[int], handin_id: int) -> list[int]:
    """The letters of some students that are still open and speak of one hand-in. Letters of before did not say which
    hand-in they are on: all of the lab are meant."""
    if not student_ids:
        return []
    marks = ", ".join(["%s"] * len(student_ids))
    rows = c.rows(
        f"SELECT id, frozen FROM letter WHERE lab_id = %s AND withdrawn_at IS NULL AND student_id IN ({marks})",
        lab_id,
        *student_ids,
    )
    return [r["id"] for r in rows if json.loads(r["frozen"]).get("handin_id", handin_id) == handin_id]


def close(c: Connection, letter_id: int, why: str) -> None:
    """Take a letter back, read or not: its links lead nowhere, a mail with one that waits is not sent."""
    c.run("UPDATE letter SET withdrawn_at = UTC_TIMESTAMP(6) WHERE id = %s AND withdrawn_at IS NULL", letter_id)
    c.run("UPDATE page_link SET revoked_at = UTC_TIMESTAMP(6) WHERE letter_id = %s", letter_id)
    c.run(
        "UPDATE delivery SET state = 'failed', trouble = %s, token = NULL WHERE letter_id = %s AND state = 'queued'",
        why,
        letter_id,
    )


def add_link(c: Connection, letter_id: int, token_hash: str, days: int) -> None:
    c.run(
        "INSERT INTO page_link (token_hash, letter_id, expires_at) VALUES (%s, %s, UTC_TIMESTAMP(6) + INTERVAL %s DAY)",
        token_hash, letter_id, days,
    )  # fmt: skip


def page_behind(c: Connection, token_hash: str) -> Page | None:
    """The newest letter of the student and lab that a link which still holds was made for."""
    return c.one(
        Page,
        "SELECT n.id, n.frozen, n.number, n.released_at, k.expires_at FROM page_link k JOIN letter l ON l.id ="
        " k.letter_id JOIN letter n ON n.lab_id = l.lab_id AND n.student_id = l.student_id WHERE k.token_hash = %s AND"
        " k.expires_at > UTC_TIMESTAMP(6) AND k.revoked_at IS NULL AND l.withdrawn_at IS NULL AND n.withdrawn_at IS"
        " NULL ORDER BY n.number DESC LIMIT 1",
        token_hash,
    )


def note_read(c: Connection, letter_id: int, token_hash: str) -> None:
    """Remember that a letter was opened, and by which link."""
    c.run("UPDATE letter SET read_at = COALESCE(read_at, UTC_TIMESTAMP(6)) WHERE id = %s", letter_id)
    c.run(
        "UPDATE page_link SET first_read_at = COALESCE(first_read_at, UTC_TIMESTAMP(6)) WHERE token_hash = %s",
        token_hash,
    )


def earlier_than(c: Connection, letter_id: int) -> list[Earlier]:
    """The letters that one corrects, newest first."""
    return c.all(
        Earlier,
        "SELECT e.frozen, e.number, e.released_at FROM letter l JOIN letter e ON e.lab_id = l.lab_id AND e.student_id ="
        " l.student_id AND e.number < l.number WHERE l.id = %s AND e.withdrawn_at IS NULL ORDER BY e.number DESC",
        letter_id,
    )


def is_colleague(c: Connection, letter_id: int, person_id: int) -> bool:
    """Whether somebody works on the class that a letter is of."""
    return (
        c.value(
            "SELECT 1 FROM letter l JOIN lab b ON b.id = l.lab_id JOIN class_role r ON r.class_id = b.class_id WHERE"
            " l.id = %s AND r.person_id = %s",
            letter_id,
            person_id,
        )
        is not None
    )


def queue_delivery(c: Connection, letter_id: int, address: str, token: str) -> None:
    c.run(
        "INSERT INTO delivery (letter_id, address, token, state, at) VALUES (%s, %s, %s, 'queued', UTC_TIMESTAMP(6))",
        letter_id, address, token,
    )  # fmt: skip


def queued_deliveries(c: Connection) -> list[QueuedDelivery]:
    return c.all(
        QueuedDelivery,
        "SELECT d.id, d.address, d.token, d.tries, l.frozen FROM delivery d JOIN letter l ON l.id = d.letter_id"
        " WHERE d.state = 'queued' AND (d.tries = 0 OR d.at < UTC_TIMESTAMP(6) - INTERVAL POW(2,"
        " d.tries) SECOND) ORDER BY d.id LIMIT 100",
    )


def note_delivery(c: Connection, delivery_id: int, trouble: str = "") -> None:
    """Sent, or tried in vain: after ten tries within half an hour it stays failed."""
    if not trouble:
        c.run("UPDATE delivery SET state = 'sent', token = NULL, at = UTC_TIMESTAMP(6) WHERE id = %s", delivery_id)
        return
    c.run(
        "UPDATE delivery SET tries = tries + 1, trouble = %s, state = IF(tries >= 10, 'failed', 'queued'), at ="
        " UTC_TIMESTAMP(6) WHERE id = %s",
        trouble[:500],
        delivery_id,
    )


def links_seen_by(c: Connection, person_id: int) -> set[str]:
    """The hashes of the links to letters of all classes that a person works on; who only looks sees none."""
    rows = c.rows(
        "SELECT k.token_hash FROM page_link k JOIN letter l ON l.id = k.letter_id JOIN lab b ON b.id = l.lab_id"
        " JOIN class_role r ON r.class_id = b.class_id WHERE r.person_id = %s AND r.role <> 'reader'",
        person_id,
    )
    return {r["token_hash"] for r in rows}
