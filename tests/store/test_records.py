"""Records on a real MariaDB: migrations, rosters, attempts, ledgers, letters, links."""

from __future__ import annotations

from datetime import datetime
from typing import Any

import pytest

from obento.core.handin import HandinFile
from obento.store import accounts, audit, course, handins, letters, owners, people
from obento.store.connection import Store
from obento.store.handins import NewAttempt
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
                c,
                class_id,
                people.Listed(f"00{n}", f"Student {n}", f"s{n}@x.example", given={"number": f"00{n}", "Nöte": "=1"}),
                n,
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
        assert people.put_student(c, class_id, people.Listed("001", "New Name"), 1) == ids[1]
        assert people.students(c, class_id)[1].name == "New Name"
        accounts.open_session(c, "t" * 64, ta, "c" * 43, 1)
        assert accounts.session(c, "t" * 64).name == "Ta"  # type: ignore[union-attr]
        c.run("UPDATE sign_in SET expires_at = UTC_TIMESTAMP(6) - INTERVAL 1 SECOND")
        assert accounts.session(c, "t" * 64) is None


def came(text: bytes, hour: int = 9, **more: Any) -> NewAttempt:
    return NewAttempt("x", [HandinFile("a.v", text)], NOON.replace(hour=hour), False, **more)


def test_attempts_count_by_the_labs_rule(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    ta, _, lab, ids = a_course
    with store.transaction() as c:
        handin = handins.handin_of(c, lab, ids[0], None)
        assert handins.handin_of(c, lab, ids[0], None) == handin
        for hour, text in ((9, b"one"), (10, b"two")):
            assert handins.add_attempt(c, handin, came(text, hour)) is not None
        assert handins.add_attempt(c, handin, came(b"one")) is None  # known already
        assert handins.handins_of(c, lab)[0].attempt == 2
        course.set_lab(c, lab, course.Terms("Lab", NOON, "first"))
        row = handins.handins_of(c, lab)[0]
        assert row.attempt == 1 and handins.attempt_files(c, row.attempt_id or 0) == [HandinFile("a.v", b"one")]
        audit.note(c, ta, "test", f"lab {lab}", {"x": 1})
        assert audit.of_subjects(c, [f"lab {lab}"])[0].detail == '{"x": 1}'


def test_settling_an_owner_joins_attempts(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    _, _, lab, ids = a_course
    with store.transaction() as c:
        mine = handins.handin_of(c, lab, ids[0], None)
        handins.add_attempt(c, mine, came(b"1"))
        stray = handins.unowned_handin(c, lab, "who?", [], None)
        handins.add_attempt(c, stray, came(b"2"))
        assert handins.give_to(c, stray, lab, ids[0], None) == mine
        attempts = handins.attempts_of(c, mine)
        assert [a.number for a in attempts] == [1, 2] and len(handins.handins_of(c, lab)) == 1
        split = handins.split_attempt(c, attempts[1].id)
        assert split != mine and handins.handin(c, split).student_id is None  # type: ignore[union-attr]
        assert handins.give_to(c, split, lab, ids[0], None) == mine
        team = owners.put_team(c, lab, "pair", ids[1:])
        other = handins.handin_of(c, lab, None, team)
        assert [m.id for m in owners.teams_of(c, lab)[team]] == ids[1:] and handins.handin(c, other).team_id == team  # type: ignore[union-attr]


def test_teams_are_their_members(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    """Two teams whose members are called alike are two."""
    _, _, lab, ids = a_course
    with store.transaction() as c:
        first = owners.put_team(c, lab, "Ada and Bo", ids[:2])
        assert owners.put_team(c, lab, "whatever", ids[1::-1]) == first
        second = owners.put_team(c, lab, "Ada and Bo", ids[1:])
        assert second != first and owners.team_name(c, second) == "Ada and Bo (2)"


def test_nobodys_hand_ins_join_by_name_and_text_alone(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    _, _, lab, _ = a_course
    files = [HandinFile("a.v", b"1")]
    with store.transaction() as c:
        first = handins.unowned_handin(c, lab, "x", files, None)
        handins.add_attempt(c, first, came(b"1"))
        assert handins.unowned_handin(c, lab, "x", files, None) == first
        assert handins.unowned_handin(c, lab, "x", [HandinFile("a.v", b"2")], None) != first
        assert handins.unowned_handin(c, lab, "y", files, None) != first


def test_what_is_put_aside_is_gone_until_it_is_taken_back(
    store: Store, a_course: tuple[int, int, int, list[int]]
) -> None:
    _, _, lab, ids = a_course
    with store.transaction() as c:
        handin = handins.handin_of(c, lab, ids[0], None)
        handins.add_attempt(c, handin, came(b"1"))
        handins.put_aside(c, handin, "a test of mine")
        assert handins.handins_of(c, lab) == [] == handins.heads_of(c, lab)
        assert handins.lab_attempts(c, lab).by_handin == {}
        assert handins.handins_of(c, lab, aside=True)[0].aside_reason == "a test of mine"
        handins.put_aside(c, handin, None)
        assert len(handins.heads_of(c, lab)) == 1


def test_letters_links_and_withdrawal(store: Store, a_course: tuple[int, int, int, list[int]]) -> None:
    ta, _, lab, ids = a_course
    with store.transaction() as c:
        first = letters.add_letter(c, lab, ids[0], {"n": 1}, ta)
        second = letters.add_letter(c, lab, ids[0], {"n": 2}, ta)
        assert c.value("SELECT corrects FROM letter WHERE id = %s", second) == first
        letters.add_link(c, first, "a" * 64, 10)
        letters.add_link(c, second, "b" * 64, 10)
        for link in "ab":  # an old link leads to the newest letter; asking for it is not reading
            assert letters.page_behind(c, link * 64).number == 2  # type: ignore[union-attr]
        assert [e.number for e in letters.earlier_than(c, second)] == [1]
        assert letters.letters_of(c, lab)[ids[0]].read_at is None
        letters.note_read(c, second, "b" * 64)
        c.run("UPDATE page_link SET expires_at = UTC_TIMESTAMP(6) - INTERVAL 1 SECOND WHERE token_hash = %s", "b" * 64)
        assert letters.page_behind(c, "b" * 64) is None  # expired
        assert letters.withdraw_unread(c, lab) == 1  # the second was read, by whichever link
        assert letters.page_behind(c, "a" * 64) is None  # revoked
        letters.queue_delivery(c, second, "s@x.example", "t" * 43)
        row = letters.queued_deliveries(c)[0]
        for _ in range(10):
            letters.note_delivery(c, row.id, "away")
        assert (
            letters.queued_deliveries(c) == []
            and c.value("SELECT state FROM delivery WHERE id = %s", row.id) == "failed"
        )
