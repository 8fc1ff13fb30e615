"""Migrations: numbered .sql files, each applied once, in order. MariaDB commits at each definition, so every statement
there is written to be run again. What SQL cannot do is done by the program after a file's statements."""

from __future__ import annotations

from collections.abc import Callable
from importlib.resources import files

from obento.store.connection import Store
from obento.store.upgrades import name_units, pack_outcomes

_AFTER: dict[str, Callable[[Store], None]] = {
    "0007_packed_outcomes.sql": pack_outcomes,
    "0014_units.sql": name_units,
}
"""Work on existing rows that belongs to a migration. It may be broken off and is then done again."""

_BEFORE = (
    "migration (name VARCHAR(100) PRIMARY KEY, applied_at DATETIME(6) NOT NULL)",
    # Grows with every transaction that changes something (see `Connection.end`), those of migrations too.
    "generation (id TINYINT PRIMARY KEY, n BIGINT UNSIGNED NOT NULL)",
)
"""Tables that are there before any migration."""


def migrations() -> list[tuple[str, list[str]]]:
    """(name, statements) of all migrations."""
    found = []
    folder = files("obento.store").joinpath("migrations")
    for entry in sorted(folder.iterdir(), key=lambda e: e.name):
        if entry.name.endswith(".sql"):
            lines = [
                line for line in entry.read_text(encoding="utf-8").splitlines() if not line.lstrip().startswith("--")
            ]
            found.append((entry.name, [s.strip() for s in "\n".join(lines).split(";\n") if s.strip().rstrip(";")]))
    return found


def migrate(store: Store) -> list[str]:
    """Apply what is missing; gives the names of what was applied."""
    applied: list[str] = []
    with store.transaction() as c:
        for table in _BEFORE:
            c.run(f"CREATE TABLE IF NOT EXISTS {table}")
        known = {row["name"] for row in c.rows("SELECT name FROM migration")}
    for name, statements in migrations():
        if name in known:
            continue
        with store.transaction() as c:
            for statement in statements:
                c.run(statement.rstrip(";"))
        if name in _AFTER:
            _AFTER[name](store)
        with store.transaction() as c:
            c.run("INSERT INTO migration (name, applied_at) VALUES (%s, UTC_TIMESTAMP(6))", name)
        applied.append(name)
    return applied
