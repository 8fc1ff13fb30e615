"""Classes, labs, tasks, and who may hand in later."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class ClassHead:
    """A class as one person has it."""

    id: int
    name: str
    school: str
    role: str
    tas_release: bool
    tas_manage: bool
    language: str
    students: int


@dataclass(frozen=True, slots=True)
class Standing:
    """What a person is in a class (reader, ta or lecturer), and what its TAs may do besides checking and marking:
    release letters, and set terms, specs and people."""

    role: str
    tas_release: bool
    tas_manage: bool


@dataclass(frozen=True, slots=True)
class LabHead:
    id: int
    title: str
    due_at: datetime | None


@dataclass(frozen=True, slots=True)
class Lab:
    """A lab with the class it belongs to. `which_attempt` is last, first or best. Lateness costs `late_share` of one,
    once or for each hour or day begun (`late_step`), after `late_grace` minutes, at most `late_cap`."""

    id: int
    class_id: int
    title: str
    due_at: datetime | None
    which_attempt: str
    late_share: float
    late_step: str
    late_grace: int
    late_cap: float
    class_name: str
    school: str
    language: str


@dataclass(frozen=True, slots=True)
class Task:
    id: int
    lab_id: int
    title: str
    class_id: int


@dataclass(frozen=True, slots=True)
class CurrentTask:
    """A task with its current spec version (the newest)."""

    id: int
    lab_id: int
    title: str
    version_id: int | None
    version: int | None
    is_right: bool
    digest: str | None
    used_at: datetime | None


@dataclass(frozen=True, slots=True)
class Extension:
    """Until when one student may hand in."""

    student_id: int
    due_at: datetime
    reason: str


def add_class(c: Connection, name: str, school: str, person_id: int, role: str) -> int:
    class_id = c.insert("INSERT INTO class (name, school, created_at) VALUES (%s, %s, UTC_TIMESTAMP(6))", name, school)
    c.run("INSERT INTO class_role (class_id, person_id, role) VALUES (%s, %s, %s)", class_id, person_id, role)
    return class_id


def classes_of(c: Connection, person_id: int) -> list[ClassHead]:
    return c.all(
        ClassHead,
        "SELECT k.id, k.name, k.school, r.role, k.tas_release, k.tas_manage, k.language,"
        " (SELECT COUNT(*) FROM student s WHERE s.class_id = k.id AND s.erased_at IS NULL) AS students"
        " FROM class k JOIN class_role r ON r.class_id = k.id WHERE r.person_id = %s AND k.gone_at IS NULL ORDER BY"
        " k.id",
        person_id,
    )


def standing(c: Connection, class_id: int, person_id: int) -> Standing | None:
    """What a person is in a class; None where that is nothing."""
    return c.one(
        Standing,
        "SELECT r.role, k.tas_release, k.tas_manage FROM class_role r JOIN class k ON k.id = r.class_id WHERE"
        " r.class_id = %s AND r.person_id = %s",
        class_id,
        person_id,
    )


def set_rights(c: Connection, class_id: int, tas_release: bool, tas_manage: bool) -> None:
    """What the TAs of a class may do besides checking, commenting and marking."""
    c.run("UPDATE class SET tas_release = %s, tas_manage = %s WHERE id = %s", tas_release, tas_manage, class_id)


def set_language(c: Connection, class_id: int, language: str) -> None:
    """In which language a class's letters are written."""
    c.run("UPDATE class SET language = %s WHERE id = %s", language, class_id)


def class_name(c: Connection, class_id: int) -> str:
    return str(c.value("SELECT name FROM class WHERE id = %s", class_id) or "")


def add_lab(c: Connection, class_id: int, title: str, due_at: datetime | None, late_share: float = 0.0) -> int:
    return c.insert(
        "INSERT INTO lab (class_id, title, due_at, late_share, position, created_at) SELECT %s, %s, %s, %s, COUNT(*),"
        " UTC_TIMESTAMP(6) FROM lab WHERE class_id = %s",
        class_id,
        title,
        due_at,
        late_share,
        class_id,
    )


def labs_of(c: Connection, class_id: int) -> list[LabHead]:
    return c.all(
        LabHead,
        "SELECT id, title, due_at FROM lab WHERE class_id = %s AND gone_at IS NULL ORDER BY position, id",
        class_id,
    )


_LAB = (
    "SELECT l.id, l.class_id, l.title, l.due_at, l.which_attempt, l.late_share, l.late_step, l.late_grace, l.late_cap,"
    " k.name AS class_name, k.school, k.language"
    " FROM lab l JOIN class k ON k.id = l.class_id"
)


def lab(c: Connection, lab_id: int) -> Lab | None:
    return c.one(Lab, f"{_LAB} WHERE l.id = %s AND l.gone_at IS NULL AND k.gone_at IS NULL", lab_id)


@dataclass(frozen=True, slots=True)
class Terms:
    """What a lab says of due date, attempts and lateness (see `Lab`)."""

    title: str
    due_at: datetime | None
    which_attempt: str = "last"
    late_share: float = 0.0
    late_step: str = "once"
    late_grace: int = 0
    late_cap: float = 1.0


def set_lab(c: Connection, lab_id: int, terms: Terms) -> None:
    c.run(
        "UPDATE lab SET title = %s, due_at = %s, which_attempt = %s, late_share = %s, late_step = %s, late_grace = %s,"
        " late_cap = %s WHERE id = %s",
        terms.title, terms.due_at, terms.which_attempt, terms.late_share, terms.late_step, terms.late_grace,
        terms.late_cap, lab_id,
    )  # fmt: skip


def add_task(c: Connection, lab_id: int, title: str) -> int:
    return c.insert(
        "INSERT INTO task (lab_id, position, title) SELECT %s, COUNT(*), %s FROM task WHERE lab_id = %s",
        lab_id,
        title,
        lab_id,
    )


def tasks_of(c: Connection, lab_id: int) -> list[CurrentTask]:
    """Tasks with their current spec version, in their order."""
    return c.all(
        CurrentTask,
        "SELECT t.id, t.lab_id, t.title, v.id AS version_id, v.number AS version, v.is_right, v.digest, v.used_at"
        " FROM task t LEFT JOIN spec_version v ON v.id = (SELECT MAX(id) FROM spec_version WHERE task_id = t.id)"
        " WHERE t.lab_id = %s AND t.gone_at IS NULL ORDER BY t.position, t.id",
        lab_id,
    )


def task(c: Connection, task_id: int) -> Task | None:
    return c.one(
        Task,
        "SELECT t.id, t.lab_id, t.title, l.class_id FROM task t JOIN lab l ON l.id = t.lab_id JOIN class k ON"
        " k.id = l.class_id WHERE t.id = %s AND t.gone_at IS NULL AND l.gone_at IS NULL AND k.gone_at IS NULL",
        task_id,
    )


def lab_of_handin(c: Connection, handin_id: int) -> int | None:
    """The lab that a hand-in is for."""
    found: int | None = c.value("SELECT lab_id FROM handin WHERE id = %s", handin_id)
    return found


def extensions(c: Connection, lab_id: int) -> dict[int, Extension]:
    """Who may hand in later, by student."""
    return {
        e.student_id: e
        for e in c.all(Extension, "SELECT student_id, due_at, reason FROM extension WHERE lab_id = %s", lab_id)
    }


def put_extension(c: Connection, lab_id: int, student_id: int, due_at: datetime, reason: str, person_id: int) -> None:
    c.run(
        "REPLACE INTO extension (lab_id, student_id, due_at, reason, person_id) VALUES (%s, %s, %s, %s, %s)",
        lab_id, student_id, due_at, reason, person_id,
    )  # fmt: skip


def drop_extension(c: Connection, lab_id: int, student_id: int) -> None:
    c.run("DELETE FROM extension WHERE lab_id = %s AND student_id = %s", lab_id, student_id)


def excused(c: Connection, lab_id: int) -> dict[int, str]:
    """Who need not hand in, with the reason, by student."""
    rows = c.rows("SELECT student_id, reason FROM excused WHERE lab_id = %s", lab_id)
    return {r["student_id"]: r["reason"] for r in rows}


def excuse(c: Connection, lab_id: int, student_id: int, reason: str | None, person_id: int) -> None:
    """Say that a student need not hand in, and why, or (None) that they have to."""
    if reason is None:
        c.run("DELETE FROM excused WHERE lab_id = %s AND student_id = %s", lab_id, student_id)
        return
    c.run(
        "REPLACE INTO excused (lab_id, student_id, reason, person_id, at) VALUES (%s, %s, %s, %s, UTC_TIMESTAMP(6))",
        lab_id, student_id, reason, person_id,
    )  # fmt: skip
