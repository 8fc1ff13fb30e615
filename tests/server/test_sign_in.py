"""Trying passwords: counted before they are looked at, slower and slower, and nobody is locked out by others."""

from __future__ import annotations

import time
from concurrent.futures import ThreadPoolExecutor

import pytest
from fastapi.testclient import TestClient

from obento.server.accounts import throttle
from obento.server.accounts.passwords import COMMON, require_good
from obento.server.accounts.security import hash_password
from obento.server.accounts.throttle import Counted, count
from obento.server.errors import Trouble
from obento.store import accounts
from obento.store.connection import Store
from tests.server.conftest import Client

GOOD = "ropes and bollards"


@pytest.fixture
def store(application: TestClient) -> Store:
    found: Store = application.app.state.services.store  # type: ignore[attr-defined]
    with found.transaction() as c:
        c.run("DELETE FROM sign_in_failure")
    return found


def person(store: Store, email: str) -> str:
    with store.transaction() as c:
        accounts.add_person(c, email, "Somebody", hash_password(GOOD))
    return email


def tries(client: Client, email: str, password: str = "wrong") -> int:
    return client.http.post("/api/sign-in", json={"email": email, "password": password}).status_code


def test_after_five_wrong_ones_the_next_has_to_wait(application: TestClient, store: Store) -> None:
    email = person(store, "slow@tries.example")
    client = Client(TestClient(application.app))
    assert [tries(client, email) for _ in range(7)] == [401] * 5 + [429] * 2
    assert tries(client, email, GOOD) == 429  # the right one waits as well: nothing is told by it
    with store.transaction() as c:
        c.run("UPDATE sign_in_failure SET at = at - INTERVAL 3 SECOND")
    assert tries(client, email, GOOD) == 200
    assert tries(client, email) == 401  # and all are forgotten


def test_the_wait_grows(store: Store) -> None:
    waits = []
    counted = Counted("account:grows", 2)
    for _ in range(9):
        try:
            count(store, counted)
            waits.append(0)
        except Trouble as wait:
            waits.append(int(wait.text.split()[-2]))
            with store.transaction() as c:
                c.run("UPDATE sign_in_failure SET at = at - INTERVAL 61 SECOND")
                c.run(
                    "UPDATE sign_in_failure SET at = UTC_TIMESTAMP(6) WHERE at > UTC_TIMESTAMP(6) - INTERVAL 30 SECOND"
                )
    assert waits[:2] == [0, 0] and max(waits) <= 61 and any(w > 0 for w in waits[2:])


def test_tries_at_once_are_all_counted(application: TestClient, store: Store) -> None:
    email = person(store, "burst@tries.example")
    clients = [Client(TestClient(application.app)) for _ in range(8)]
    with ThreadPoolExecutor(8) as threads:
        found = list(threads.map(lambda client: tries(client, email), clients * 3))
    assert found.count(401) <= 6 and found.count(429) >= 18


def test_a_known_browser_is_not_held_up_by_others(application: TestClient, store: Store) -> None:
    email = person(store, "known@tries.example")
    own = Client(TestClient(application.app)).sign_in(email, GOOD)
    stranger = Client(TestClient(application.app))
    for _ in range(12):
        tries(stranger, email)
    assert tries(stranger, email, GOOD) == 429
    assert tries(own, email, GOOD) == 200
    assert [tries(own, email) for _ in range(9)][-1] == 429  # it has a count of its own
    other = person(store, "other@tries.example")
    own.http.cookies.delete("obento_session")
    assert [tries(own, other) for _ in range(6)][-1] == 429  # and is known for nobody else


def test_one_client_with_many_addresses(application: TestClient, store: Store, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(throttle, "by_client", throttle.by_client)
    client = Client(TestClient(application.app))
    found = [tries(client, f"nobody{i}@tries.example") for i in range(44)]
    assert found[:40] == [401] * 40 and found[-1] == 429


def test_changing_a_password_is_counted_too(application: TestClient, store: Store) -> None:
    client = Client(TestClient(application.app)).sign_in(person(store, "change@tries.example"), GOOD)
    found = [
        client.http.post("/api/me/password", json={"old": "no", "password": GOOD + "!"}, headers=client.headers)
        for _ in range(7)
    ]
    assert [answer.status_code for answer in found] == [403] * 5 + [429] * 2


BAD = [
    "          ",
    "a         b",
    "1234567890",
    "Password123!",
    "aaaaaaaaaaaa",
    "abababababab",
    "QwertyUiop",
    "me@x.example",
]


@pytest.mark.parametrize("password", BAD)
def test_passwords_that_are_not_taken(password: str) -> None:
    with pytest.raises(Trouble):
        require_good(password, "me@x.example")


@pytest.mark.parametrize("password", [GOOD, "locks-and-lamps", "zwölf Boxkämpfer", "correct staple battery"])
def test_passwords_that_are(password: str) -> None:
    require_good(password, "me@x.example")


def test_the_list_holds_only_what_could_be_taken() -> None:
    assert len(COMMON) > 150 and all(word == word.casefold() and " " not in word for word in COMMON)


def test_sessions_are_listed_and_ended_by_their_owner(application: TestClient, store: Store) -> None:
    email = person(store, "two@tries.example")
    one, two = (Client(TestClient(application.app, headers={"User-Agent": ua})).sign_in(email, GOOD) for ua in "AB")
    listed = one.get("/me/sessions")
    assert sorted((s["browser"], s["is_this"]) for s in listed) == [("A", True), ("B", False)]
    other = next(s for s in listed if not s["is_this"])
    stranger = Client(TestClient(application.app)).sign_in(person(store, "third@tries.example"), GOOD)
    stranger.send("DELETE", f"/me/sessions/{other['key']}", status=404)
    one.send("DELETE", f"/me/sessions/{other['key']}")
    two.get("/me", status=401)
    assert [s["browser"] for s in one.get("/me/sessions")] == ["A"]


def settled(store: Store) -> int:
    """The state of the records once nothing goes on in the background any more."""
    found = -1
    while True:
        with store.transaction() as c:
            now = c.generation()
        if now == found:
            return now
        found = now
        time.sleep(1)


def test_tries_have_nobodys_pages_made_anew(application: TestClient, store: Store) -> None:
    client = Client(TestClient(application.app))
    for attempt in range(10):  # something in the background may change the records just then
        email = person(store, f"quiet{attempt}@tries.example")
        before = settled(store)
        assert [tries(client, email), tries(client, email, GOOD)] == [401, 200]
        with store.transaction() as c:
            if c.generation() == before:
                return
    pytest.fail("signing in has pages made anew")
