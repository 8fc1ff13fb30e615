"""A database of before an evening had tasks, times and teams of its own: nothing of it is lost or judged anew."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from obento.store import course, drops, handins, letters, people
from obento.store.connection import Store
from obento.store.mariadb import PrivateServer
from obento.store.migrate import migrate, migrations
from tests.conftest import empty

SPEC = 'obento = "spec/1"\ntitle = "Locks"\nunit = "lock"\n'
OLD = (
    "INSERT INTO person (id, email, name, password_hash, created_at) VALUES (1, 'ta@x.example', 'Ta', 'x', NOW())",
    "INSERT INTO class (id, name, school, created_at) VALUES (1, 'Class', 'School', NOW())",
    "INSERT INTO class_role (class_id, person_id, role) VALUES (1, 1, 'ta')",
    "INSERT INTO student (id, class_id, number, name, email, given, position) VALUES"
    " (1, 1, '007', 'Ada Berg', 'a@x.example', '{\"number\": \"007\", \"group\": \"B\"}', 0),"
    " (2, 1, '008', 'Bo Dahl', '', '{}', 1)",
    "INSERT INTO lab (id, class_id, title, due_at, which_attempt, late_share, position, created_at)"
    " VALUES (1, 1, 'Lab', '2026-01-01 12:00:00', 'first', 0.25, 0, NOW())",
    "INSERT INTO task (id, lab_id, position, title) VALUES (1, 1, 0, 'Locks'), (2, 1, 1, 'Broken')",
    "INSERT INTO spec_version (id, task_id, number, text, digest, is_right, created_at, used_at) VALUES"
    f" (1, 1, 1, '{SPEC}', 'd', 1, NOW(), NOW()), (2, 2, 1, 'unit = ', 'd', 0, NOW(), NULL)",
    "INSERT INTO handin (id, lab_id, student_id, label, created_at) VALUES (1, 1, 1, '007', NOW())",
    "INSERT INTO attempt (id, handin_id, number, label, received_at, late, digest) VALUES"
    " (1, 1, 1, '007', '2026-01-01 13:00:00', 1, 'x'), (2, 1, 2, '007', '2026-01-01 14:00:00', 1, 'y')",
    "INSERT INTO attempt_file (attempt_id, path, data) VALUES (1, 'a.v', 'one'), (2, 'a.v', 'two')",
    "INSERT INTO intake_drop (id, lab_id, person_id, name, at, files, left_out) VALUES"
    " (1, 1, 1, 'd.zip', NOW(), 2, '[]')",
    "INSERT INTO letter (id, lab_id, student_id, number, frozen, person_id, released_at) VALUES"
    " (1, 1, 1, 1, '{}', 1, NOW())",
    "INSERT INTO page_link (token_hash, letter_id, expires_at, first_read_at) VALUES"
    " (REPEAT('a', 64), 1, NOW() + INTERVAL 9 DAY, '2026-01-02 09:00:00')",
)


@pytest.fixture
def old(database: PrivateServer) -> Iterator[Store]:
    """A database as it was left by the version before, with a lab in it."""
    store = Store(database.address)
    empty(store)
    with store.transaction() as c:
        for table in [str(next(iter(r.values()))) for r in c.rows("SHOW TABLES")]:
            c.run("SET FOREIGN_KEY_CHECKS = 0")
            c.run(f"DROP TABLE `{table}`")
        c.run("SET FOREIGN_KEY_CHECKS = 1")
        c.run("CREATE TABLE migration (name VARCHAR(100) PRIMARY KEY, applied_at DATETIME(6) NOT NULL)")
        c.run("CREATE TABLE generation (id TINYINT PRIMARY KEY, n BIGINT UNSIGNED NOT NULL)")
        for name, statements in migrations():
            if name < "0011":
                for statement in statements:
                    c.run(statement.rstrip(";"))
                c.run("INSERT INTO migration VALUES (%s, NOW())", name)
        for statement in OLD:
            c.run(statement)
    yield store
    migrate(store)
    empty(store)


def test_an_older_database_keeps_everything(old: Store) -> None:
    assert [name[:4] for name in migrate(old)] == [f"{number:04}" for number in range(11, 22)]
    assert migrate(old) == []
    with old.transaction() as c:
        ada, bo = people.students(c, 1)
        assert (ada.group_name, bo.group_name) == ("B", "")
        attempts = handins.lab_attempts(c, 1)
        assert [(a.id, a.late, a.task_id, a.drop_id) for a in attempts.by_handin[1]] == [
            (1, True, None, None), (2, True, None, None),
        ]  # fmt: skip
        assert attempts.units == {1: "lock", 2: ""} and attempts.which == "first"
        assert handins.handins_of(c, 1)[0].attempt_id == 1
        assert handins.attempt_files(c, 2)[0].data == b"two"
        assert all(a.is_confirmed for a in handins.attempts_of_lab(c, 1))  # what was late stays late
        (drop,) = drops.drops_of(c, 1)
        assert drop.is_confirmed and drop.task_id is None
        lab = course.lab(c, 1)
        assert lab is not None
        assert (float(lab.late_share), lab.late_step, lab.late_grace, float(lab.late_cap)) == (0.25, "once", 0, 1.0)
        letter = letters.letters_of(c, 1)[1]
        assert letter.read_at is not None and letter.withdrawn_at is None
        page = letters.page_behind(c, "a" * 64)
        assert page is not None and page.number == 1
