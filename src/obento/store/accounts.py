"""Accounts: people, their passwords, sessions and invitations."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class Account:
    """Somebody who can sign in; `password_hash` is empty until they have set a password. `made_by` is who made the
    account, None where nobody in particular did, or more than one person counts on it."""

    id: int
    email: str
    name: str
    password_hash: str
    made_by: int | None


@dataclass(frozen=True, slots=True)
class SignedIn:
    """Who is signed in, and the token that their page carries."""

    id: int
    email: str
    name: str
    csrf: str


@dataclass(frozen=True, slots=True)
class Invitee:
    """Whose link it is."""

    id: int
    email: str
    name: str


def is_there_any(c: Connection) -> bool:
    """Whether anybody has an account."""
    return c.value("SELECT 1 FROM person LIMIT 1") is not None


def person_by_email(c: Connection, email: str) -> Account | None:
    return c.one(
        Account,
        "SELECT id, email, name, password_hash, made_by FROM person WHERE email = %s",
        email.strip().lower(),
    )


def add_person(c: Connection, email: str, name: str, password_hash: str, made_by: int | None = None) -> int:
    return c.insert(
        "INSERT INTO person (email, name, password_hash, made_by, created_at) VALUES (%s, %s, %s, %s,"
        " UTC_TIMESTAMP(6))",
        email.strip().lower(), name, password_hash, made_by,
    )  # fmt: skip


def counts_for_others(c: Connection, person_id: int) -> None:
    """Somebody else than who made an account lets it into a class."""
    c.run("UPDATE person SET made_by = NULL WHERE id = %s", person_id)


def set_password(c: Connection, person_id: int, password_hash: str) -> None:
    """A new password; whoever is signed in as this person is so no longer."""
    c.run("UPDATE person SET password_hash = %s WHERE id = %s", password_hash, person_id)
    c.run("DELETE FROM sign_in WHERE person_id = %s", person_id)


def note_try(c: Connection, key: str) -> int:
    """Count one try of a password under a key; its number."""
    return c.insert("INSERT INTO sign_in_failure (email, at) VALUES (%s, UTC_TIMESTAMP(6))", key[:280])


def tries_before(c: Connection, key: str, number: int, minutes: int) -> tuple[int, float]:
    """How many tries a key has had before one, within so many minutes, and how many seconds ago the last of them
    was."""
    row = c.row(
        "SELECT COUNT(*) AS n, TIMESTAMPDIFF(MICROSECOND, MAX(at), UTC_TIMESTAMP(6)) / 1000000 AS ago FROM"
        " sign_in_failure WHERE email = %s AND at > UTC_TIMESTAMP(6) - INTERVAL %s MINUTE AND id < %s",
        key[:280],
        minutes,
        number,
    )
    assert row is not None
    return int(row["n"]), float(row["ago"] or 0.0)


def drop_try(c: Connection, number: int) -> None:
    """One that was not looked at counts for nothing."""
    c.run("DELETE FROM sign_in_failure WHERE id = %s", number)


def forget_tries(c: Connection, key: str) -> None:
    """Tries under a key count no longer."""
    c.run("DELETE FROM sign_in_failure WHERE email = %s", key[:280])


def know_browser(c: Connection, token_hash: str, person_id: int) -> None:
    """Somebody has signed in in this browser."""
    c.run(
        "REPLACE INTO known_browser (token_hash, person_id, seen_at) VALUES (%s, %s, UTC_TIMESTAMP(6))",
        token_hash,
        person_id,
    )


def is_known_browser(c: Connection, token_hash: str, email: str) -> bool:
    """Whether the owner of an address has signed in in this browser before."""
    return (
        c.value(
            "SELECT 1 FROM known_browser k JOIN person p ON p.id = k.person_id WHERE k.token_hash = %s AND p.email ="
            " %s",
            token_hash,
            email,
        )
        is not None
    )


@dataclass(frozen=True, slots=True)
class Session:
    """One of a person's sessions; `key` names it, and is no way into it."""

    key: str
    started_at: datetime | None
    expires_at: datetime
    browser: str


def sessions_of(c: Connection, person_id: int) -> list[Session]:
    """A person's sessions, the newest first."""
    return c.all(
        Session,
        "SELECT LEFT(token_hash, 16) AS `key`, started_at, expires_at, browser FROM sign_in WHERE person_id = %s AND"
        " expires_at > UTC_TIMESTAMP(6) ORDER BY expires_at DESC",
        person_id,
    )


def end_session(c: Connection, person_id: int, key: str) -> bool:
    """End one of a person's sessions; False where there is none of this name."""
    return c.run("DELETE FROM sign_in WHERE person_id = %s AND LEFT(token_hash, 16) = %s", person_id, key) > 0


def open_session(c: Connection, token_hash: str, person_id: int, csrf: str, hours: int, browser: str = "") -> None:
    c.run("DELETE FROM sign_in WHERE expires_at < UTC_TIMESTAMP(6)")
    c.run(
        "INSERT INTO sign_in (token_hash, person_id, csrf, expires_at, started_at, browser) VALUES (%s, %s, %s,"
        " UTC_TIMESTAMP(6) + INTERVAL %s HOUR, UTC_TIMESTAMP(6), %s)",
        token_hash,
        person_id,
        csrf,
        hours,
        browser[:200],
    )


def session(c: Connection, token_hash: str) -> SignedIn | None:
    return c.one(
        SignedIn,
        "SELECT p.id, p.email, p.name, s.csrf FROM sign_in s JOIN person p ON p.id = s.person_id"
        " WHERE s.token_hash = %s AND s.expires_at > UTC_TIMESTAMP(6)",
        token_hash,
    )


def close_session(c: Connection, token_hash: str) -> None:
    c.run("DELETE FROM sign_in WHERE token_hash = %s", token_hash)


def add_invitation(c: Connection, person_id: int, token_hash: str, days: int) -> None:
    """A new link; earlier ones of the same person hold no longer."""
    c.run("DELETE FROM invitation WHERE person_id = %s AND used_at IS NULL", person_id)
    c.run(
        "INSERT INTO invitation (token_hash, person_id, expires_at) VALUES (%s, %s, UTC_TIMESTAMP(6) + INTERVAL %s"
        " DAY)",
        token_hash,
        person_id,
        days,
    )


def open_invitation(c: Connection, token_hash: str) -> Invitee | None:
    """Whose link it is, while it holds."""
    return c.one(
        Invitee,
        "SELECT p.id, p.email, p.name FROM invitation i JOIN person p ON p.id = i.person_id"
        " WHERE i.token_hash = %s AND i.used_at IS NULL AND i.expires_at > UTC_TIMESTAMP(6)",
        token_hash,
    )


def use_invitation(c: Connection, token_hash: str) -> bool:
    """Use a link up; False when somebody was quicker."""
    return (
        c.run("UPDATE invitation SET used_at = UTC_TIMESTAMP(6) WHERE token_hash = %s AND used_at IS NULL", token_hash)
        == 1
    )


@dataclass(frozen=True, slots=True)
class QueuedWelcome:
    """A link by which somebody sets a password, on its way to their address."""

    id: int
    email: str
    class_name: str
    token: str
    tries: int


def queue_welcome(c: Connection, person_id: int, class_name: str, token: str) -> None:
    """Have a link sent; those that still wait hold no longer."""
    c.run(
        "UPDATE welcome_mail SET state = 'failed', trouble = 'a newer one was asked for', token = NULL WHERE person_id"
        " = %s AND state = 'queued'",
        person_id,
    )
    c.run(
        "INSERT INTO welcome_mail (person_id, class_name, token, state, at) VALUES (%s, %s, %s, 'queued',"
        " UTC_TIMESTAMP(6))",
        person_id,
        class_name,
        token,
    )


def queued_welcomes(c: Connection) -> list[QueuedWelcome]:
    """Links that wait to be sent."""
    return c.all(
        QueuedWelcome,
        "SELECT w.id, p.email, w.class_name, w.token, w.tries FROM welcome_mail w JOIN person p ON p.id = w.person_id"
        " WHERE w.state = 'queued' AND (w.tries = 0 OR w.at < UTC_TIMESTAMP(6) - INTERVAL POW(2,"
        " w.tries) SECOND) ORDER BY w.id LIMIT 100",
    )


def note_welcome(c: Connection, mail_id: int, trouble: str = "") -> None:
    """Sent, or tried in vain: after ten tries within half an hour it stays failed."""
    if not trouble:
        c.run("UPDATE welcome_mail SET state = 'sent', token = NULL, at = UTC_TIMESTAMP(6) WHERE id = %s", mail_id)
        return
    c.run(
        "UPDATE welcome_mail SET tries = tries + 1, trouble = %s, token = IF(tries >= 10, NULL, token), state ="
        " IF(tries >= 10, 'failed', 'queued'), at = UTC_TIMESTAMP(6) WHERE id = %s",
        trouble[:500],
        mail_id,
    )
