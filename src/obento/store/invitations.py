"""Links by which people set their first password, or a new one."""

from __future__ import annotations

from obento.store.connection import Connection, Row


def add_invitation(c: Connection, person_id: int, token_hash: str, days: int) -> None:
    """A new link; earlier ones of the same person hold no longer."""
    c.run("DELETE FROM invitation WHERE person_id = %s AND used_at IS NULL", person_id)
    c.run(
        "INSERT INTO invitation (token_hash, person_id, expires_at) VALUES (%s, %s, UTC_TIMESTAMP(6) + INTERVAL %s DAY)",
        token_hash, person_id, days,
    )  # fmt: skip


def open_invitation(c: Connection, token_hash: str) -> Row | None:
    """Whose link it is, while it holds: `id`, `email` and `name`."""
    return c.row(
        "SELECT p.id, p.email, p.name FROM invitation i JOIN person p ON p.id = i.person_id"
        " WHERE i.token_hash = %s AND i.used_at IS NULL AND i.expires_at > UTC_TIMESTAMP(6)",
        token_hash,
    )


def use_invitation(c: Connection, token_hash: str) -> bool:
    """Use a link up; False when somebody was quicker."""
    return c.run("UPDATE invitation SET used_at = UTC_TIMESTAMP(6) WHERE token_hash = %s AND used_at IS NULL", token_hash) == 1
