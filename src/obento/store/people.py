"""Accounts, signing in, classes, rosters and the audit."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence

from obento.store.connection import Connection, Row


def person_by_email(c: Connection, email: str) -> Row | None:
    return c.row("SELECT id, email, name, password_hash FROM person WHERE email = %s", email.strip().lower())


def add_person(c: Connection, email: str, name: str, password_hash: str) -> int:
    return c.insert(
        "INSERT INTO person (email, name, password_hash, created_at) VALUES (%s, %s, %s, UTC_TIMESTAMP(6))",
        email.strip().lower(), name, password_hash,
    )  # fmt: skip


def set_password(c: Connection, person_id: int, password_hash: str) -> None:
    """A new password; whoever is signed in as this person is so no longer."""
    c.run("UPDATE person SET password_hash = %s WHERE id = %s", password_hash, person_id)
    c.run("DELETE FROM sign_in WHERE person_id = %s", person_id)


def failures_since(c: Connection, email: str, minutes: int) -> int:
    return int(c.value("SELECT COUNT(*) FROM sign_in_failure WHERE email = %s AND at > UTC_TIMESTAMP(6) - INTERVAL %s MINUTE", email, minutes))


def note_failure(c: Connection, email: str) -> None:
    c.run("INSERT INTO sign_in_failure (email, at) VALUES (%s, UTC_TIMESTAMP(6))", email)


def open_session(c: Connection, token_hash: str, person_id: int, csrf: str, hours: int) -> None:
    c.run("DELETE FROM sign_in WHERE expires_at < UTC_TIMESTAMP(6)")
    c.run(
        "INSERT INTO sign_in (token_hash, person_id, csrf, expires_at) VALUES (%s, %s, %s, UTC_TIMESTAMP(6) + INTERVAL %s HOUR)",
        token_hash, person_id, csrf, hours,
    )  # fmt: skip


def session(c: Connection, token_hash: str) -> Row | None:
    return c.row(
        "SELECT p.id, p.email, p.name, s.csrf FROM sign_in s JOIN person p ON p.id = s.person_id"
        " WHERE s.token_hash = %s AND s.expires_at > UTC_TIMESTAMP(6)",
        token_hash,
    )


def close_session(c: Connection, token_hash: str) -> None:
    c.run("DELETE FROM sign_in WHERE token_hash = %s", token_hash)


def add_class(c: Connection, name: str, school: str, person_id: int, role: str) -> int:
    class_id = c.insert("INSERT INTO class (name, school, created_at) VALUES (%s, %s, UTC_TIMESTAMP(6))", name, school)
    c.run("INSERT INTO class_role (class_id, person_id, role) VALUES (%s, %s, %s)", class_id, person_id, role)
    return class_id


def add_role(c: Connection, class_id: int, person_id: int, role: str) -> None:
    c.run("REPLACE INTO class_role (class_id, person_id, role) VALUES (%s, %s, %s)", class_id, person_id, role)


def drop_role(c: Connection, class_id: int, person_id: int) -> None:
    c.run("DELETE FROM class_role WHERE class_id = %s AND person_id = %s", class_id, person_id)


def people_of(c: Connection, class_id: int) -> list[Row]:
    """Who works on a class; `joined` once they have a password."""
    return c.rows(
        "SELECT p.id, p.name, p.email, r.role, p.password_hash <> '' AS joined FROM class_role r JOIN person p ON p.id = r.person_id"
        " WHERE r.class_id = %s ORDER BY r.role DESC, p.name, p.id",
        class_id,
    )


def classes_of(c: Connection, person_id: int) -> list[Row]:
    return c.rows(
        "SELECT k.id, k.name, k.school, r.role,"
        " (SELECT COUNT(*) FROM student s WHERE s.class_id = k.id AND s.erased_at IS NULL) AS students"
        " FROM class k JOIN class_role r ON r.class_id = k.id WHERE r.person_id = %s ORDER BY k.id",
        person_id,
    )


def has_role(c: Connection, class_id: int, person_id: int) -> bool:
    return c.value("SELECT 1 FROM class_role WHERE class_id = %s AND person_id = %s", class_id, person_id) is not None


def put_student(c: Connection, class_id: int, number: str, name: str, email: str, given: Mapping[str, str], position: int) -> int:
    """Add a roster row, or bring the one with this number up to date."""
    c.run(
        "INSERT INTO student (class_id, number, name, email, given, position) VALUES (%s, %s, %s, %s, %s, %s)"
        " ON DUPLICATE KEY UPDATE name = VALUES(name), email = VALUES(email), given = VALUES(given), position = VALUES(position)",
        class_id, number, name, email, json.dumps(given, ensure_ascii=False), position,
    )  # fmt: skip
    return int(c.value("SELECT id FROM student WHERE class_id = %s AND number = %s", class_id, number))


def students(c: Connection, class_id: int) -> list[Row]:
    return c.rows("SELECT id, number, name, email FROM student WHERE class_id = %s AND erased_at IS NULL ORDER BY position, id", class_id)


def erase_student(c: Connection, student_id: int) -> None:
    """Delete a person's data: hand-ins of their own, letters, notes; the roster row stays as an empty shell so that
    counts of the past stay true. What a team handed in together stays with the team."""
    handins = [r["id"] for r in c.rows("SELECT id FROM handin WHERE student_id = %s", student_id)]
    for handin_id in handins:
        c.run("DELETE FROM comment WHERE handin_id = %s", handin_id)
        c.run("DELETE FROM handin WHERE id = %s", handin_id)
    c.run("DELETE FROM letter WHERE student_id = %s", student_id)
    c.run("DELETE FROM extension WHERE student_id = %s", student_id)
    c.run("DELETE FROM team_member WHERE student_id = %s", student_id)
    c.run("DELETE FROM mark_entry WHERE student_id = %s", student_id)
    c.run(
        "UPDATE student SET name = '', email = '', given = '{}', number = CONCAT('erased-', id), erased_at = UTC_TIMESTAMP(6) WHERE id = %s",
        student_id,
    )


def audit(c: Connection, person_id: int | None, action: str, subject: str, detail: object = "") -> None:
    text = detail if isinstance(detail, str) else json.dumps(detail, ensure_ascii=False)
    c.run(
        "INSERT INTO audit (at, person_id, action, subject, detail) VALUES (UTC_TIMESTAMP(6), %s, %s, %s, %s)",
        person_id, action, subject[:200], text[:60_000],
    )  # fmt: skip


def audit_of(c: Connection, subjects: Sequence[str]) -> list[Row]:
    marks = ", ".join(["%s"] * len(subjects))
    return c.rows(f"SELECT at, person_id, action, subject, detail FROM audit WHERE subject IN ({marks}) ORDER BY id", *subjects)
