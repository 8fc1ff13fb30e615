"""Kept answers: what changed is seen at once, rights are asked first, and what is sent is the same in every form."""

from __future__ import annotations

import pytest
from fastapi import Request
from fastapi.testclient import TestClient

from obento.server.accounts.security import hash_password
from obento.server.answers import Answers
from obento.server.deps import Services
from obento.store import accounts
from obento.store.connection import Store
from tests.server.conftest import Client
from tests.server.small import WRONG, Small


def request_for(path: str, encoding: str = "") -> Request:
    headers = [(b"accept-encoding", encoding.encode())]
    return Request({"type": "http", "method": "GET", "path": path, "query_string": b"", "headers": headers})


def services(ta: Client) -> Services:
    found: Services = ta.http.app.state.services  # type: ignore[attr-defined]
    return found


def test_an_answer_is_made_once_for_each_state_of_the_records(store: Store) -> None:
    answers, made = Answers(), []

    def make() -> bytes:
        made.append(1)
        return b"%d" % len(made)

    def asked(path: str = "/a") -> bytes:
        with store.transaction() as c:
            return bytes(answers.of(c, request_for(path), make).body)

    assert [asked(), asked(), asked("/b"), asked()] == [b"1", b"1", b"2", b"1"]
    with store.transaction() as c:
        accounts.add_person(c, "a@x.example", "A", "")
    assert [asked(), asked()] == [b"3", b"3"]
    with store.transaction() as c:
        assert c.run("UPDATE person SET name = 'A' WHERE email = 'nobody'") == 0
    assert asked() == b"3"  # nothing was changed
    with pytest.raises(ZeroDivisionError), store.transaction() as c:
        accounts.add_person(c, "b@x.example", "B", "")
        raise ZeroDivisionError
    assert asked() == b"3"  # it was taken back


def test_a_reader_of_an_older_state_is_not_answered_with_a_newer_one(store: Store) -> None:
    answers = Answers()

    def people(c) -> bytes:  # type: ignore[no-untyped-def]
        return bytes(answers.of(c, request_for("/p"), lambda: c.value("SELECT COUNT(*) FROM person")).body)

    with store.transaction() as old:
        assert people(old) == b"0"
        with store.transaction() as c:
            accounts.add_person(c, "a@x.example", "A", "")
        with store.transaction() as c:
            assert people(c) == b"1"
        assert people(old) == b"0"
    with store.transaction() as c:
        assert people(c) == b"1"


def test_small_and_plain_are_the_same(store: Store) -> None:
    answers = Answers()
    with store.transaction() as c:
        plain = answers.of(c, request_for("/a"), lambda: {"text": "word " * 400})
        small = answers.of(c, request_for("/a", "gzip, br"), dict)
    assert small.headers["content-encoding"] == "gzip" and "content-encoding" not in plain.headers
    assert len(small.body) < len(plain.body) / 10 and small.headers["vary"] == plain.headers["vary"]


def test_few_bytes_are_kept(store: Store) -> None:
    answers = Answers(most_bytes=3000)
    with store.transaction() as c:
        for n in range(20):
            answers.of(c, request_for(f"/{n}"), lambda: b"x" * 1000)
        assert answers.of(c, request_for("/19"), lambda: b"new").body != b"new"
        assert answers.of(c, request_for("/0"), lambda: b"new").body == b"new"


def test_pages_show_what_was_changed_a_moment_ago(ta: Client) -> None:
    small = Small(ta).hand_in(Ilse_Varga=WRONG)
    key, members = small.clusters()[0]["key"], small.clusters()[0]["members"]
    who = members[0]["name"]
    before = small.review(who)
    assert before["comment"] == "" and small.review(who) == before
    ta.send("PUT", f"/tasks/{small.task}/comments/{key}", {"text": "mind the gate", "version": 0})
    assert small.review(who)["comment"] == "mind the gate"
    assert small.clusters()[0]["comment"] == "mind the gate"
    ta.send("PUT", f"/handins/{small.handin(who)}/tasks/{small.task}/mark", {"value": 3, "reason": "seen in the lab"})
    assert small.review(who)["mark"] == 3
    feedback = ta.get(f"/labs/{small.lab}/feedback")["students"]
    assert next(s for s in feedback if s["name"] == who)["marks"] == [3]


def test_nobody_is_answered_who_may_not_see(ta: Client, application: TestClient) -> None:
    small = Small(ta).hand_in(Ilse_Varga=WRONG)
    paths = [f"/tasks/{small.task}/results", f"/tasks/{small.task}/cells", f"/labs/{small.lab}/feedback",
             f"/labs/{small.lab}", f"/labs/{small.lab}/report", f"/labs/{small.lab}/intake",
             f"/tasks/{small.task}/review/{small.handin('Ilse Varga')}"]  # fmt: skip
    for path in paths:
        ta.get(path)
    with services(ta).store.transaction() as c:
        accounts.add_person(c, "stranger@x.example", "Stranger", hash_password("some-password"))
    application.cookies.clear()
    stranger = Client(application).sign_in("stranger@x.example", "some-password")
    for path in paths:
        stranger.get(path, status=404)
    assert stranger.get("/home") == []
