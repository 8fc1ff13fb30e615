"""Labs, their tasks, spec versions and files."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable
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


_SPEC = (
    "SELECT id, task_id, number, text, digest, is_right, created_at, used_at, edition, files_digest, frozen_at, is_frozen_late FROM spec_version"
    " WHERE task_id = %s ORDER BY id DESC LIMIT 1"
)


def current_spec(c: Connection, task_id: int) -> Row | None:
    return c.row(_SPEC, task_id)


def version_files(c: Connection, version: Row, provided: bool) -> list[tuple[str, bytes]]:
    """The files that a version rests on: those frozen with it, or the task's own while nothing rests on it."""
    if version["frozen_at"] is None:
        return task_files(c, version["task_id"], provided)
    rows = c.rows("SELECT name, data FROM spec_file WHERE spec_version_id = %s AND provided = %s ORDER BY name", version["id"], provided)
    return [(r["name"], r["data"]) for r in rows]


def files_digest(files: Iterable[tuple[bool, str, bytes]]) -> str:
    """A print of files, each with whether it is provided, its name and its data; migration 0005 makes the same one."""
    lines = sorted((provided, name.encode().hex(), f"{provided:d} {hashlib.sha256(data).hexdigest()} {name}") for provided, name, data in files)
    return hashlib.sha256("\n".join(line for _, _, line in lines).encode()).hexdigest()


def _own_files_digest(c: Connection, task_id: int) -> str:
    rows = c.rows("SELECT name, provided, data FROM task_file WHERE task_id = %s", task_id)
    return files_digest((bool(r["provided"]), r["name"], r["data"]) for r in rows)


def save_spec(c: Connection, task_id: int, text: str, title: str, digest: str, edition: int, is_right: bool, person_id: int | None) -> int:
    """Save a spec's text, read by the rules of `edition`, with the files that lie beside it now.

    It goes into the newest version while nothing rests on that, else it becomes a new version; a used one that says the same stays.
    """
    newest = c.row(f"{_SPEC} FOR UPDATE", task_id)
    c.run("UPDATE task SET title = %s WHERE id = %s", title, task_id)
    if newest is not None and newest["used_at"] is None:
        c.run(
            "UPDATE spec_version SET text = %s, digest = %s, edition = %s, is_right = %s, person_id = %s, created_at = UTC_TIMESTAMP(6)"
            " WHERE id = %s",
            text, digest, edition, is_right, person_id, newest["id"],
        )  # fmt: skip
        return int(newest["id"])
    files = _own_files_digest(c, task_id)
    if newest is not None and (newest["text"], newest["edition"], newest["files_digest"]) == (text, edition, files):
        return int(newest["id"])
    return c.insert(
        "INSERT INTO spec_version (task_id, number, text, digest, edition, is_right, person_id, created_at)"
        " VALUES (%s, %s, %s, %s, %s, %s, %s, UTC_TIMESTAMP(6))",
        task_id, (newest["number"] if newest else 0) + 1, text, digest, edition, is_right, person_id,
    )  # fmt: skip


def mark_used(c: Connection, version_id: int) -> bool:
    """Something rests on this version from now on: its text is kept, and its files are frozen with it. Says whether that is new."""
    row = c.row("SELECT task_id, used_at FROM spec_version WHERE id = %s FOR UPDATE", version_id)
    if row is None or row["used_at"] is not None:
        return False
    c.run(
        "INSERT INTO spec_file (spec_version_id, name, provided, data) SELECT %s, name, provided, data FROM task_file WHERE task_id = %s",
        version_id, row["task_id"],
    )  # fmt: skip
    c.run(
        "UPDATE spec_version SET files_digest = %s, frozen_at = UTC_TIMESTAMP(6), used_at = UTC_TIMESTAMP(6) WHERE id = %s",
        _own_files_digest(c, row["task_id"]), version_id,
    )  # fmt: skip
    return True


def files_have_changed(c: Connection, task_id: int) -> bool:
    """Whether the files beside a task's spec are others than those frozen with its newest version."""
    row = current_spec(c, task_id)
    return row is not None and row["frozen_at"] is not None and row["files_digest"] != _own_files_digest(c, task_id)


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
