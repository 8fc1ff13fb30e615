"""Who works on a class, and who is in it."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class Colleague:
    """Who works on a class; `joined` once they have a password."""

    id: int
    name: str
    email: str
    role: str
    joined: bool


@dataclass(frozen=True, slots=True)
class Student:
    """A line of the class list; `group_name` and `team_name` are empty where it gives none."""

    id: int
    number: str
    name: str
    email: str
    group_name: str
    team_name: str


def add_role(c: Connection, class_id: int, person_id: int, role: str) -> None:
    c.run("REPLACE INTO class_role (class_id, person_id, role) VALUES (%s, %s, %s)", class_id, person_id, role)


def drop_role(c: Connection, class_id: int, person_id: int) -> None:
    c.run("DELETE FROM class_role WHERE class_id = %s AND person_id = %s", class_id, person_id)


def people_of(c: Connection, class_id: int) -> list[Colleague]:
    """Who works on a class."""
    return c.all(
        Colleague,
        "SELECT p.id, p.name, p.email, r.role, p.password_hash <> '' AS joined FROM class_role r JOIN person p ON p.id"
        " = r.person_id WHERE r.class_id = %s ORDER BY r.role DESC, p.name, p.id",
        class_id,
    )


@dataclass(frozen=True, slots=True)
class Listed:
    """What a class list says of a student; `given` is every column as it was given."""

    number: str
    name: str
    email: str = ""
    group: str = ""
    team: str = ""
    remarks: str = ""
    given: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class ListedStudent:
    """A line of the class list, of those who left too."""

    id: int
    number: str
    name: str
    email: str
    group_name: str
    team_name: str
    remarks: str
    left_at: datetime | None


def put_student(c: Connection, class_id: int, listed: Listed, position: int, student_id: int | None = None) -> int:
    """Add a line to the class list, or bring one up to date: the one with this number, or the one named."""
    known = student_id or c.value("SELECT id FROM student WHERE class_id = %s AND number = %s", class_id, listed.number)
    values = (
        listed.number, listed.name, listed.email, listed.group, listed.team, listed.remarks,
        json.dumps(dict(listed.given), ensure_ascii=False), position,
    )  # fmt: skip
    if known is not None:
        c.run(
            "UPDATE student SET number = %s, name = %s, email = %s, group_name = %s, team_name = %s, remarks = %s,"
            " given = %s, position = %s, left_at = NULL WHERE id = %s",
            *values,
            known,
        )
        return int(known)
    return c.insert(
        "INSERT INTO student (number, name, email, group_name, team_name, remarks, given, position, class_id) VALUES"
        " (%s, %s, %s, %s, %s, %s, %s, %s, %s)",
        *values,
        class_id,
    )


def set_student(c: Connection, student_id: int, listed: Listed) -> None:
    """Change what the class list says of one student."""
    c.run(
        "UPDATE student SET number = %s, name = %s, email = %s, group_name = %s, team_name = %s, remarks = %s WHERE id"
        " = %s",
        listed.number, listed.name, listed.email, listed.group, listed.team, listed.remarks, student_id,
    )  # fmt: skip


def set_left(c: Connection, student_id: int, has_left: bool) -> None:
    """Say that a student is out of the class from now on, or in it again."""
    c.run("UPDATE student SET left_at = IF(%s, UTC_TIMESTAMP(6), NULL) WHERE id = %s", has_left, student_id)


def class_list(c: Connection, class_id: int) -> list[ListedStudent]:
    """All lines of a class list, those who left last."""
    return c.all(
        ListedStudent,
        "SELECT id, number, name, email, group_name, team_name, remarks, left_at FROM student WHERE class_id = %s AND"
        " erased_at IS NULL ORDER BY left_at IS NOT NULL, position, id",
        class_id,
    )


def students(c: Connection, class_id: int) -> list[Student]:
    return c.all(
        Student,
        "SELECT id, number, name, email, group_name, team_name FROM student WHERE class_id = %s AND erased_at IS NULL"
        " AND left_at IS NULL ORDER BY position, id",
        class_id,
    )


def namesakes(c: Connection, class_id: int) -> frozenset[str]:
    """The names that more than one student of a class has."""
    rows = c.rows(
        "SELECT name FROM student WHERE class_id = %s AND erased_at IS NULL GROUP BY name HAVING COUNT(*) > 1", class_id
    )
    return frozenset(r["name"] for r in rows)


def given_of(c: Connection, class_id: int) -> dict[int, dict[str, str]]:
    """What the class list says of each student, column by column as it was given."""
    return {
        r["id"]: json.loads(r["given"]) for r in c.rows("SELECT id, given FROM student WHERE class_id = %s", class_id)
    }


def count_students(c: Connection, class_id: int) -> int:
    """How many students a class has."""
    return int(c.value("SELECT COUNT(*) FROM student WHERE class_id = %s AND erased_at IS NULL", class_id))
