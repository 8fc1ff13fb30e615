"""Records on a real MariaDB: migrations, rosters, attempts, ledgers, letters, links."""

from __future__ import annotations

from datetime import datetime

import pytest

from obento.core.handin import HandinFile
from obento.store import accounts, audit, course, handins, letters, people
from obento.store.connection import Store
from obento.store.mariadb import PrivateServer
from obento.store.migrate import migrate, migrations

NOON = datetime(2026, 11, 2, 12)


@pytest.fixture
def a_course(store: Store) -> tuple[int, int, int, list[int]]:
    """TA, class, lab and three students."""
    with store.transaction() as c:
        ta = accounts.add_person(c, "TA@X.example", "Ta", "hash")
        class_id = course.add_class(c, "Class", "School", ta, "ta")
        ids = [
            people.put_student(
                c, class_id, f"00{n}", f"Student {n}", f"s{n}@x.example", {"number": f"00{n}", "Nöte": "=1"}, n
            )
            for n in range(3)
        ]
        return ta, class_id, course.add_lab(c, class_id, "Lab", NOON), ids


def test_migrations_are_applied_once_and_may_be_run_again(store: Store) -> None:
    assert migrate(store) == []
    with store.transaction() as c:
        for _, statements in migrations():
            for statement in statements:
                c.run(statement.rstrip(";"))


def test_a_server_is_started_once_and_found_again(database: PrivateServer) -> None:
    again = PrivateServer(database.folder)
    assert again.is_running() and again.start() == database.address


def test_people_and_rosters(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    ta, class_id, _, ids = a_course
    with store.transaction() as c:
        assert accounts.person_by_email(c, " ta@x.EXAMPLE ").id == ta  # type: ignore[union-attr]
        assert [s.number for s in people.students(c, class_id)] == ["000", "001", "002"]
        assert people.put_student(c, class_id, "001", "New Name", "", {}, 1) == ids[1]
        assert people.students(c, class_id)[1].name == "New Name"
        accounts.open_session(c, "t" * 64, ta, "c" * 43, 1)
        assert accounts.session(c, "t" * 64).name == "Ta"  # type: ignore[union-attr]
        c.run("UPDATE sign_in SET expires_at = UTC_TIMESTAMP(6) - INTERVAL 1 SECOND")
        assert accounts.session(c, "t" * 64) is None


def test_attempts_count_by_the_labs_rule(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    ta, _, lab, ids = a_course
    with store.transaction() as c:
        handin = handins.handin_for(c, lab, ids[0], None, "x")
        assert handins.handin_for(c, lab, ids[0], None, "y") == handin
        for hour, text in ((9, b"one"), (10, b"two")):
            assert (
                handins.add_attempt(c, handin, "x", [HandinFile("a.v", text)], NOON.replace(hour=hour), False)
                is not None
            )
        assert handins.add_attempt(c, handin, "x", [HandinFile("a.v", b"one")], NOON, False) is None  # known already
        assert handins.handins_of(c, lab)[0].attempt == 2
        course.set_lab(c, lab, "Lab", NOON, "first", 0)
        row = handins.handins_of(c, lab)[0]
        assert row.attempt == 1 and handins.attempt_files(c, row.attempt_id or 0) == [HandinFile("a.v", b"one")]
        audit.note(c, ta, "test", f"lab {lab}", {"x": 1})
        assert audit.of_subjects(c, [f"lab {lab}"])[0].detail == '{"x": 1}'


def test_settling_an_owner_joins_attempts(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    _, _, lab, ids = a_course
    with store.transaction() as c:
        mine = handins.handin_for(c, lab, ids[0], None, "")
        handins.add_attempt(c, mine, "a", [HandinFile("a.v", b"1")], NOON, False)
        stray = handins.handin_for(c, lab, None, None, "who?")
        handins.add_attempt(c, stray, "who?", [HandinFile("a.v", b"2")], NOON, False)
        assert handins.give_to(c, stray, lab, ids[0], None) == mine
        assert [a.number for a in handins.attempts_of(c, mine)] == [1, 2] and len(handins.handins_of(c, lab)) == 1
        team = handins.put_team(c, lab, "pair", ids[1:])
        other = handins.handin_for(c, lab, None, team, "pair")
        assert [m.id for m in handins.teams_of(c, lab)[team]] == ids[1:] and handins.handin(c, other).team_id == team  # type: ignore[union-attr]


def test_letters_links_and_withdrawal(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    ta, _, lab, ids = a_course
    with store.transaction() as c:
        first = letters.add_letter(c, lab, ids[0], {"n": 1}, ta)
        second = letters.add_letter(c, lab, ids[0], {"n": 2}, ta)
        assert c.value("SELECT corrects FROM letter WHERE id = %s", second) == first
        letters.add_link(c, first, "a" * 64, 10)
        letters.add_link(c, second, "b" * 64, 10)
        assert letters.open_page(c, "b" * 64).number == 2  # type: ignore[union-attr]
        c.run("UPDATE page_link SET expires_at = UTC_TIMESTAMP(6) - INTERVAL 1 SECOND WHERE token_hash = %s", "b" * 64)
        assert letters.open_page(c, "b" * 64) is None  # expired
        assert letters.withdraw_unread(c, lab) == 1  # the second was read
        assert letters.open_page(c, "a" * 64) is None  # revoked
        letters.queue_delivery(c, second, "s@x.example", "t" * 43)
        row = letters.queued_deliveries(c)[0]
        for _ in range(10):
            letters.note_delivery(c, row.id, "away")
        assert (
            letters.queued_deliveries(c) == []
            and c.value("SELECT state FROM delivery WHERE id = %s", row.id) == "failed"
        )
