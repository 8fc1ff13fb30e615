"""Comments, marks, letters, links and deliveries."""

from __future__ import annotations

import json
from typing import Any

from obento.store.connection import Connection, Row


def comments_of(c: Connection, task_id: int) -> dict[tuple[str, int], Row]:
    """By (cluster, hand-in); hand-in 0 is the comment for the whole cluster."""
    rows = c.rows("SELECT cluster, handin_id, text, version, person_id, at FROM comment WHERE task_id = %s", task_id)
    return {(r["cluster"], r["handin_id"]): r for r in rows}


def comments_by(c: Connection, person_id: int, task_id: int, cluster: str) -> list[Row]:
    """Comments on clusters in all classes of a person, newest first, with the outcome they were written on; without the one named."""
    return c.rows(
        "SELECT m.text, l.title AS lab, t.title AS task,"
        " (SELECT r.detail FROM result r WHERE r.task_id = m.task_id AND r.cluster = SUBSTRING_INDEX(m.cluster, ':', 1) LIMIT 1) AS detail"
        " FROM comment m JOIN task t ON t.id = m.task_id JOIN lab l ON l.id = t.lab_id JOIN class_role k ON k.class_id = l.class_id"
        " WHERE k.person_id = %s AND m.handin_id = 0 AND TRIM(m.text) <> '' AND NOT (m.task_id = %s AND m.cluster = %s)"
        " ORDER BY m.at DESC LIMIT 200",
        person_id, task_id, cluster,
    )  # fmt: skip


class EditedMeanwhile(Exception):
    """Somebody else saved the comment first; `text` is what stands there now."""

    def __init__(self, text: str, version: int) -> None:
        super().__init__("edited meanwhile")
        self.text = text
        self.version = version


def put_comment(c: Connection, task_id: int, cluster: str, handin_id: int, text: str, version: int, person_id: int) -> int:
    """Save a comment written on top of `version` (0 for a new one); gives the new version.

    Raises
    ------
    EditedMeanwhile
        If another version stands there by now.
    """
    known = c.row(
        "SELECT id, text, version FROM comment WHERE task_id = %s AND cluster = %s AND handin_id = %s FOR UPDATE",
        task_id,
        cluster,
        handin_id,
    )
    if known is not None and known["version"] != version and known["text"] != text:
        raise EditedMeanwhile(known["text"], known["version"])
    if known is None:
        c.run(
            "INSERT INTO comment (task_id, cluster, handin_id, text, version, person_id, at) VALUES (%s, %s, %s, %s, 1, %s, UTC_TIMESTAMP(6))",
            task_id, cluster, handin_id, text, person_id,
        )  # fmt: skip
        return 1
    c.run(
        "UPDATE comment SET text = %s, version = version + 1, person_id = %s, at = UTC_TIMESTAMP(6) WHERE id = %s",
        text,
        person_id,
        known["id"],
    )
    return int(known["version"]) + 1


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


def machine_entries(c: Connection, handin_id: int, task_id: int) -> list[Row]:
    """What the machine entered for one hand-in in one task, oldest first."""
    return c.rows(
        "SELECT kind, value, result_id FROM mark_entry WHERE handin_id = %s AND task_id = %s AND kind IN ('computed', 'late', 'held') ORDER BY id",
        handin_id, task_id,
    )  # fmt: skip


def marks_of(c: Connection, lab_id: int) -> dict[tuple[int, int], list[Row]]:
    """The ledger of a lab by (hand-in, task), oldest first."""
    rows = c.rows(
        "SELECT m.handin_id, m.task_id, m.student_id, m.kind, m.value, m.reason, m.person_id, m.at, m.result_id FROM mark_entry m"
        " JOIN handin h ON h.id = m.handin_id WHERE h.lab_id = %s ORDER BY m.id",
        lab_id,
    )
    found: dict[tuple[int, int], list[Row]] = {}
    for row in rows:
        found.setdefault((row["handin_id"], row["task_id"]), []).append(row)
    return found


def add_letter(c: Connection, lab_id: int, student_id: int, frozen: dict[str, Any], person_id: int) -> int:
    """Freeze a letter; one that was released before is corrected by it, never changed."""
    before = c.row("SELECT id, number FROM letter WHERE lab_id = %s AND student_id = %s ORDER BY number DESC LIMIT 1 FOR UPDATE", lab_id, student_id)
    return c.insert(
        "INSERT INTO letter (lab_id, student_id, number, corrects, frozen, person_id, released_at)"
        " VALUES (%s, %s, %s, %s, %s, %s, UTC_TIMESTAMP(6))",
        lab_id, student_id, (before["number"] if before else 0) + 1, before["id"] if before else None,
        json.dumps(frozen, ensure_ascii=False), person_id,
    )  # fmt: skip


def letters_of(c: Connection, lab_id: int) -> dict[int, Row]:
    """The newest letter of each student, with whether it was read and delivered."""
    rows = c.rows(
        "SELECT l.id, l.student_id, l.number, l.frozen, l.released_at, l.withdrawn_at,"
        " (SELECT MIN(k.first_read_at) FROM page_link k WHERE k.letter_id = l.id) AS read_at,"
        " (SELECT d.state FROM delivery d WHERE d.letter_id = l.id ORDER BY d.id DESC LIMIT 1) AS delivery"
        " FROM letter l WHERE l.lab_id = %s ORDER BY l.number",
        lab_id,
    )
    return {r["student_id"]: r for r in rows}


def withdraw_unread(c: Connection, lab_id: int) -> int:
    """Take back letters whose page nobody has opened; gives how many."""
    unread = [
        r["id"]
        for r in c.rows(
            "SELECT l.id FROM letter l WHERE l.lab_id = %s AND l.withdrawn_at IS NULL"
            " AND NOT EXISTS (SELECT 1 FROM page_link k WHERE k.letter_id = l.id AND k.first_read_at IS NOT NULL) FOR UPDATE",
            lab_id,
        )
    ]
    for letter_id in unread:
        c.run("UPDATE letter SET withdrawn_at = UTC_TIMESTAMP(6) WHERE id = %s", letter_id)
        c.run("UPDATE page_link SET revoked_at = UTC_TIMESTAMP(6) WHERE letter_id = %s", letter_id)
        c.run(
            "UPDATE delivery SET state = 'failed', trouble = 'taken back', token = NULL WHERE letter_id = %s AND state = 'queued'",
            letter_id,
        )
    return len(unread)


def add_link(c: Connection, letter_id: int, token_hash: str, days: int) -> None:
    c.run(
        "INSERT INTO page_link (token_hash, letter_id, expires_at) VALUES (%s, %s, UTC_TIMESTAMP(6) + INTERVAL %s DAY)",
        token_hash, letter_id, days,
    )  # fmt: skip


def open_page(c: Connection, token_hash: str) -> Row | None:
    """The letter behind a link that still holds; remembers that it was read."""
    row = c.row(
        "SELECT l.id, l.frozen, l.number, l.released_at, k.expires_at FROM page_link k JOIN letter l ON l.id = k.letter_id"
        " WHERE k.token_hash = %s AND k.expires_at > UTC_TIMESTAMP(6) AND k.revoked_at IS NULL AND l.withdrawn_at IS NULL",
        token_hash,
    )
    if row is not None:
        c.run("UPDATE page_link SET first_read_at = COALESCE(first_read_at, UTC_TIMESTAMP(6)) WHERE token_hash = %s", token_hash)
    return row


def queue_delivery(c: Connection, letter_id: int, address: str, token: str) -> None:
    c.run(
        "INSERT INTO delivery (letter_id, address, token, state, at) VALUES (%s, %s, %s, 'queued', UTC_TIMESTAMP(6))",
        letter_id, address, token,
    )  # fmt: skip


def queued_deliveries(c: Connection) -> list[Row]:
    return c.rows(
        "SELECT d.id, d.address, d.token, d.tries, l.frozen FROM delivery d JOIN letter l ON l.id = d.letter_id"
        " WHERE d.state = 'queued' ORDER BY d.id LIMIT 100"
    )


def note_delivery(c: Connection, delivery_id: int, trouble: str = "") -> None:
    """Sent, or tried in vain: after five tries it stays failed."""
    if not trouble:
        c.run("UPDATE delivery SET state = 'sent', token = NULL, at = UTC_TIMESTAMP(6) WHERE id = %s", delivery_id)
        return
    c.run(
        "UPDATE delivery SET tries = tries + 1, trouble = %s, state = IF(tries >= 5, 'failed', 'queued'), at = UTC_TIMESTAMP(6) WHERE id = %s",
        trouble[:500], delivery_id,
    )  # fmt: skip


def links_seen_by(c: Connection, person_id: int) -> set[str]:
    """The hashes of the links to letters of all classes that a person works on."""
    rows = c.rows(
        "SELECT k.token_hash FROM page_link k JOIN letter l ON l.id = k.letter_id JOIN lab b ON b.id = l.lab_id"
        " JOIN class_role r ON r.class_id = b.class_id WHERE r.person_id = %s",
        person_id,
    )
    return {r["token_hash"] for r in rows}
