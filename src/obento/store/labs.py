"""Labs, their tasks, spec versions and files."""

from __future__ import annotations

from datetime import datetime

from obento.store.connection import Connection, Row


def add_lab(c: Connection, class_id: int, title: str, due_at: datetime | None, late_share: float = 0.0) -> int:
    return c.insert(
        "INSERT INTO lab (class_id, title, due_at, late_share, position, created_at) SELECT %s, %s, %s, %s, COUNT(*), UTC_TIMESTAMP(6)"
        " FROM lab WHERE class_id = %s",
        class_id, title, due_at, late_share, class_id,
    )  # fmt: skip


def labs_of(c: Connection, class_id: int) -> list[Row]:
    return c.rows("SELECT id, title, due_at FROM lab WHERE class_id = %s ORDER BY position, id", class_id)


_LAB = (
    "SELECT l.id, l.class_id, l.title, l.due_at, l.which_attempt, l.late_share, k.name AS class_name, k.school"
    " FROM lab l JOIN class k ON k.id = l.class_id"
)


def lab(c: Connection, lab_id: int) -> Row | None:
    return c.row(f"{_LAB} WHERE l.id = %s", lab_id)


def lab_of_handin(c: Connection, handin_id: int) -> Row:
    (row,) = c.rows(f"{_LAB} JOIN handin h ON h.lab_id = l.id WHERE h.id = %s", handin_id)
    return row


def set_lab(c: Connection, lab_id: int, title: str, due_at: datetime | None, which_attempt: str, late_share: float) -> None:
    c.run(
        "UPDATE lab SET title = %s, due_at = %s, which_attempt = %s, late_share = %s WHERE id = %s",
        title, due_at, which_attempt, late_share, lab_id,
    )  # fmt: skip


def add_task(c: Connection, lab_id: int, title: str) -> int:
    return c.insert("INSERT INTO task (lab_id, position, title) SELECT %s, COUNT(*), %s FROM task WHERE lab_id = %s", lab_id, title, lab_id)


def tasks_of(c: Connection, lab_id: int) -> list[Row]:
    """Tasks with their current spec version (the newest)."""
    return c.rows(
        "SELECT t.id, t.lab_id, t.title, v.id AS version_id, v.number AS version, v.is_right, v.digest, v.used_at"
        " FROM task t LEFT JOIN spec_version v ON v.id = (SELECT MAX(id) FROM spec_version WHERE task_id = t.id)"
        " WHERE t.lab_id = %s ORDER BY t.position, t.id",
        lab_id,
    )


def task(c: Connection, task_id: int) -> Row | None:
    return c.row("SELECT t.id, t.lab_id, t.title, l.class_id FROM task t JOIN lab l ON l.id = t.lab_id WHERE t.id = %s", task_id)


def current_spec(c: Connection, task_id: int) -> Row | None:
    return c.row(
        "SELECT id, number, text, digest, is_right, created_at, used_at FROM spec_version WHERE task_id = %s ORDER BY id DESC LIMIT 1",
        task_id,
    )


def save_spec(c: Connection, task_id: int, text: str, title: str, digest: str, is_right: bool, person_id: int | None) -> int:
    """Save a spec's text: into the newest version while nothing rests on it, else as a new version."""
    newest = c.row("SELECT id, number, text, used_at FROM spec_version WHERE task_id = %s ORDER BY id DESC LIMIT 1 FOR UPDATE", task_id)
    c.run("UPDATE task SET title = %s WHERE id = %s", title, task_id)
    if newest is not None and newest["text"] == text:
        return int(newest["id"])
    if newest is not None and newest["used_at"] is None:
        c.run(
            "UPDATE spec_version SET text = %s, digest = %s, is_right = %s, person_id = %s, created_at = UTC_TIMESTAMP(6) WHERE id = %s",
            text, digest, is_right, person_id, newest["id"],
        )  # fmt: skip
        return int(newest["id"])
    return c.insert(
        "INSERT INTO spec_version (task_id, number, text, digest, is_right, person_id, created_at)"
        " VALUES (%s, %s, %s, %s, %s, %s, UTC_TIMESTAMP(6))",
        task_id, (newest["number"] if newest else 0) + 1, text, digest, is_right, person_id,
    )  # fmt: skip


def mark_used(c: Connection, version_id: int) -> None:
    c.run("UPDATE spec_version SET used_at = UTC_TIMESTAMP(6) WHERE id = %s AND used_at IS NULL", version_id)


def put_task_file(c: Connection, task_id: int, name: str, data: bytes, provided: bool) -> None:
    c.run(
        "INSERT INTO task_file (task_id, name, provided, data) VALUES (%s, %s, %s, %s) ON DUPLICATE KEY UPDATE data = VALUES(data)",
        task_id, name, provided, data,
    )  # fmt: skip


def task_files(c: Connection, task_id: int, provided: bool) -> list[tuple[str, bytes]]:
    rows = c.rows("SELECT name, data FROM task_file WHERE task_id = %s AND provided = %s ORDER BY name", task_id, provided)
    return [(r["name"], r["data"]) for r in rows]


def extensions(c: Connection, lab_id: int) -> dict[int, Row]:
    """Who may hand in later, by student: `due_at` and `reason`."""
    return {r["student_id"]: r for r in c.rows("SELECT student_id, due_at, reason FROM extension WHERE lab_id = %s", lab_id)}


def put_extension(c: Connection, lab_id: int, student_id: int, due_at: datetime, reason: str, person_id: int) -> None:
    c.run(
        "REPLACE INTO extension (lab_id, student_id, due_at, reason, person_id) VALUES (%s, %s, %s, %s, %s)",
        lab_id, student_id, due_at, reason, person_id,
    )  # fmt: skip


def drop_extension(c: Connection, lab_id: int, student_id: int) -> None:
    c.run("DELETE FROM extension WHERE lab_id = %s AND student_id = %s", lab_id, student_id)
