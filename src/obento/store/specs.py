"""Versions of specs, and the files that they rest on."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class SpecVersion:
    """One version of a task's spec. `edition` says by which rules its text is read; `used_at` is None while nothing
    rests on it.

    Once something does, the files beside it are frozen with it (`frozen_at`, their print in `files_digest`);
    `is_frozen_late` where that was done long after, by a migration."""

    id: int
    task_id: int
    number: int
    text: str
    digest: str
    person_id: int | None
    is_right: bool
    created_at: datetime
    used_at: datetime | None
    edition: int
    files_digest: str
    frozen_at: datetime | None
    is_frozen_late: bool


_SPEC = (
    "id, task_id, number, text, digest, person_id, is_right, created_at, used_at, edition, files_digest, frozen_at,"
    " is_frozen_late"
)


_NEWEST = f"SELECT {_SPEC} FROM spec_version WHERE task_id = %s ORDER BY id DESC LIMIT 1"


def current_spec(c: Connection, task_id: int) -> SpecVersion | None:
    return c.one(SpecVersion, _NEWEST, task_id)


def spec_version(c: Connection, version_id: int) -> SpecVersion | None:
    return c.one(SpecVersion, f"SELECT {_SPEC} FROM spec_version WHERE id = %s", version_id)


def numbered_spec(c: Connection, task_id: int, number: int) -> SpecVersion | None:
    """One version of a task's spec, by its number."""
    return c.one(SpecVersion, f"SELECT {_SPEC} FROM spec_version WHERE task_id = %s AND number = %s", task_id, number)


@dataclass(frozen=True, slots=True)
class VersionOf:
    """One version of a spec, without its text."""

    number: int
    who: str
    at: datetime
    used: bool
    is_right: bool


def versions_of(c: Connection, task_id: int) -> list[VersionOf]:
    """All versions of a task's spec, the newest first."""
    return c.all(
        VersionOf,
        "SELECT v.number, COALESCE(p.name, '') AS who, v.created_at AS at, v.used_at IS NOT NULL AS used, v.is_right"
        " FROM spec_version v LEFT JOIN person p ON p.id = v.person_id WHERE v.task_id = %s ORDER BY v.number DESC",
        task_id,
    )


def text_of(c: Connection, task_id: int, number: int) -> str | None:
    """The text of one version; None where there is none."""
    found: str | None = c.value("SELECT text FROM spec_version WHERE task_id = %s AND number = %s", task_id, number)
    return found


def version_files(c: Connection, version: SpecVersion, provided: bool) -> list[tuple[str, bytes]]:
    """The files that a version rests on: those frozen with it, or the task's own while nothing rests on it."""
    if version.frozen_at is None:
        return task_files(c, version.task_id, provided)
    rows = c.rows(
        "SELECT name, data FROM spec_file WHERE spec_version_id = %s AND provided = %s ORDER BY name",
        version.id,
        provided,
    )
    return [(r["name"], r["data"]) for r in rows]


def files_digest(files: Iterable[tuple[bool, str, bytes]]) -> str:
    """A print of files, each with whether it is provided, its name and its data; migration 0005 makes the same one."""
    lines = sorted(
        (provided, name.encode().hex(), f"{provided:d} {hashlib.sha256(data).hexdigest()} {name}")
        for provided, name, data in files
    )
    return hashlib.sha256("\n".join(line for _, _, line in lines).encode()).hexdigest()


def _own_files_digest(c: Connection, task_id: int) -> str:
    rows = c.rows("SELECT name, provided, data FROM task_file WHERE task_id = %s", task_id)
    return files_digest((bool(r["provided"]), r["name"], r["data"]) for r in rows)


@dataclass(frozen=True, slots=True)
class NewSpec:
    """A spec's text with what it says of itself: title, unit and print; `edition` says by which rules it was read,
    `is_right` that it has no errors."""

    text: str
    title: str
    unit: str
    digest: str
    edition: int
    is_right: bool


def save_spec(c: Connection, task_id: int, new: NewSpec, person_id: int | None) -> int:
    """Save a spec with the files that lie beside it now.

    It goes into the newest version while nothing rests on that and the same person wrote it, else it becomes a new
    version: nobody's text is lost. One that says the same stays."""
    newest = c.one(SpecVersion, f"{_NEWEST} FOR UPDATE", task_id)
    c.run("UPDATE task SET title = %s WHERE id = %s", new.title, task_id)
    if (
        newest is not None
        and newest.used_at is None
        and (newest.person_id in (None, person_id) or newest.text == new.text)
    ):
        c.run(
            "UPDATE spec_version SET text = %s, unit = %s, digest = %s, edition = %s, is_right = %s, person_id = %s,"
            " created_at = UTC_TIMESTAMP(6) WHERE id = %s",
            new.text,
            new.unit[:200],
            new.digest,
            new.edition,
            new.is_right,
            person_id,
            newest.id,
        )
        return newest.id
    files = _own_files_digest(c, task_id)
    if newest is not None and (newest.text, newest.edition, newest.files_digest) == (new.text, new.edition, files):
        return newest.id
    return c.insert(
        "INSERT INTO spec_version (task_id, number, text, unit, digest, edition, is_right, person_id, created_at)"
        " VALUES (%s, %s, %s, %s, %s, %s, %s, %s, UTC_TIMESTAMP(6))",
        task_id, (newest.number if newest else 0) + 1, new.text, new.unit[:200], new.digest, new.edition, new.is_right,
        person_id,
    )  # fmt: skip


def mark_used(c: Connection, version_id: int) -> bool:
    """Something rests on this version from now on: its text is kept, and its files are frozen with it. Says whether
    that is new."""
    row = c.row("SELECT task_id, used_at FROM spec_version WHERE id = %s FOR UPDATE", version_id)
    if row is None or row["used_at"] is not None:
        return False
    c.run(
        "INSERT INTO spec_file (spec_version_id, name, provided, data) SELECT %s, name, provided, data FROM task_file"
        " WHERE task_id = %s",
        version_id,
        row["task_id"],
    )
    c.run(
        "UPDATE spec_version SET files_digest = %s, frozen_at = UTC_TIMESTAMP(6), used_at = UTC_TIMESTAMP(6) WHERE id"
        " = %s",
        _own_files_digest(c, row["task_id"]),
        version_id,
    )
    return True


def files_have_changed(c: Connection, task_id: int) -> bool:
    """Whether the files beside a task's spec are others than those frozen with its newest version."""
    row = current_spec(c, task_id)
    return row is not None and row.frozen_at is not None and row.files_digest != _own_files_digest(c, task_id)


def put_task_file(c: Connection, task_id: int, name: str, data: bytes, provided: bool) -> None:
    c.run(
        "INSERT INTO task_file (task_id, name, provided, data) VALUES (%s, %s, %s, %s) ON DUPLICATE KEY UPDATE data ="
        " VALUES(data)",
        task_id,
        name,
        provided,
        data,
    )


def task_files(c: Connection, task_id: int, provided: bool) -> list[tuple[str, bytes]]:
    rows = c.rows(
        "SELECT name, data FROM task_file WHERE task_id = %s AND provided = %s ORDER BY name", task_id, provided
    )
    return [(r["name"], r["data"]) for r in rows]
