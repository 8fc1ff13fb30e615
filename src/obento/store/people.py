"""Who works on a class, and who is in it."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass

from obento.store.connection import Connection
from obento.store.planes import drop_unused, planes_of_handin


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
    id: int
    number: str
    name: str
    email: str


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


def put_student(
    c: Connection, class_id: int, number: str, name: str, email: str, given: Mapping[str, str], position: int
) -> int:
    """Add a roster row, or bring the one with this number up to date."""
    c.run(
        "INSERT INTO student (class_id, number, name, email, given, position) VALUES (%s, %s, %s, %s, %s, %s) ON"
        " DUPLICATE KEY UPDATE name = VALUES(name), email = VALUES(email), given = VALUES(given), position ="
        " VALUES(position)",
        class_id,
        number,
        name,
        email,
        json.dumps(given, ensure_ascii=False),
        position,
    )
    return int(c.value("SELECT id FROM student WHERE class_id = %s AND number = %s", class_id, number))


def students(c: Connection, class_id: int) -> list[Student]:
    return c.all(
        Student,
        "SELECT id, number, name, email FROM student WHERE class_id = %s AND erased_at IS NULL ORDER BY position, id",
        class_id,
    )


def given_of(c: Connection, class_id: int) -> dict[int, dict[str, str]]:
    """What the class list says of each student, column by column as it was given."""
    return {
        r["id"]: json.loads(r["given"]) for r in c.rows("SELECT id, given FROM student WHERE class_id = %s", class_id)
    }


def count_students(c: Connection, class_id: int) -> int:
    """How many students a class has."""
    return int(c.value("SELECT COUNT(*) FROM student WHERE class_id = %s AND erased_at IS NULL", class_id))


def erase_student(c: Connection, student_id: int) -> None:
    """Delete a person's data: hand-ins of their own, letters, notes; the roster row stays as an empty shell so that
    counts of the past stay true. What a team handed in together stays with the team."""
    handins = [r["id"] for r in c.rows("SELECT id FROM handin WHERE student_id = %s", student_id)]
    for handin_id in handins:
        behaviour = planes_of_handin(c, handin_id)
        c.run("DELETE FROM comment WHERE handin_id = %s", handin_id)
        c.run("DELETE FROM handin WHERE id = %s", handin_id)
        for digest in behaviour:
            drop_unused(c, digest)
    c.run("DELETE FROM letter WHERE student_id = %s", student_id)
    c.run("DELETE FROM extension WHERE student_id = %s", student_id)
    c.run("DELETE FROM team_member WHERE student_id = %s", student_id)
    c.run("DELETE FROM mark_entry WHERE student_id = %s", student_id)
    c.run(
        "UPDATE student SET name = '', email = '', given = '{}', number = CONCAT('erased-', id), erased_at ="
        " UTC_TIMESTAMP(6) WHERE id = %s",
        student_id,
    )
