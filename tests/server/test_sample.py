"""The class to play with: made from nothing, checked by itself, and taken away again."""

from __future__ import annotations

import time
from collections import Counter
from types import SimpleNamespace
from typing import cast

import pytest
from fastapi.testclient import TestClient

from obento.server.accounts.security import hash_password
from obento.server.course.overview import _areas
from obento.server.course.task_state import TaskState
from obento.store import accounts
from obento.store.results import Result
from tests.server.conftest import Client

PASSWORD = "ropes and bollards"


def somebody(application: TestClient, email: str) -> Client:
    with application.app.state.services.store.transaction() as c:  # type: ignore[attr-defined]
        accounts.add_person(c, email, "Nils Orr", hash_password(PASSWORD))
    application.cookies.clear()
    return Client(application).sign_in(email, PASSWORD)


def test_it_is_checked_by_itself_and_nobody_in_it_has_an_address(application: TestClient) -> None:
    new = somebody(application, "nils@sample.example")
    assert new.get("/home") == []
    made = new.send("POST", "/sample-class")
    (card,) = new.get("/home")
    assert card["id"] == made["id"] and card["role"] == "lecturer" and "to play with" in card["name"]
    students = new.get(f"/classes/{card['id']}/students")
    assert len(students) == card["students"] > 20 and not any(s["email"] for s in students)
    assert len(card["labs"]) == 4 and all(lab["handed_in"] and lab["is_begun"] for lab in card["labs"])
    end = time.monotonic() + 120
    while any(new.get(f"/labs/{lab['id']}")["running"] for lab in card["labs"]) and time.monotonic() < end:
        time.sleep(0.2)
    (card,) = new.get("/home")
    for lab in card["labs"]:
        for tray, head in zip(lab["tasks"], new.get(f"/labs/{lab['id']}")["tasks"], strict=True):
            counts = Counter(dict.fromkeys(("wrong", "rules", "right", "unchecked", "waiting", "missing"), 0))
            for area in tray["areas"]:
                counts[area["kind"]] += area["count"]
            assert tray["title"] == head["title"] and counts["right"] == head["right"]
            assert (counts["wrong"], counts["rules"]) == (head["wrong"], head["against_rules"])
            assert (
                counts["waiting"] == 0
                and counts["unchecked"] == head["unchecked"]
                and counts["missing"] == card["students"] - lab["handed_in"]
            )
        tasks = new.get(f"/labs/{lab['id']}")["tasks"]
        assert all(t["right"] and t["wrong"] for t in tasks), tasks
    # Letters may be released, and stay here.
    done = new.send("POST", f"/labs/{card['labs'][0]['id']}/release", {"student_ids": None})
    assert done["letters"] == done["without_address"] > 0
    # A second one only when the first is away.
    assert "is there already" in new.send("POST", "/sample-class", status=409)["detail"]
    new.send("DELETE", f"/classes/{card['id']}")
    assert new.get("/home") == []
    assert new.send("POST", "/sample-class")["id"] != card["id"]


def outcome(cluster: int, passed: int = 0, rules_ok: bool = True) -> Result:
    """As much of an outcome as a miniature looks at."""
    found = SimpleNamespace(status="checked", passed=passed, total=4, cluster=str(cluster), rules_ok=rules_ok)
    return cast(Result, found)


def test_of_many_clusters_a_miniature_shows_the_largest() -> None:
    sizes = [5, 4, 3, 2, 1, 1, 1, 1, 1]  # nine clusters, of which seven are shown and two go together
    rows = [outcome(n) for n, size in enumerate(sizes) for _ in range(size)] + [outcome(99, passed=4)] * 3
    state = TaskState(dict(enumerate(rows)), {500: [], 501: [], 502: []}, {})
    areas = [(a.kind, a.count, a.ways) for a in _areas(state, 2)]
    assert areas == [
        *[("wrong", n, 1) for n in (5, 4, 3, 2, 1, 1, 1)], ("wrong", 2, 2), ("right", 3, 1), ("waiting", 3, 1),
        ("missing", 2, 1),
    ]  # fmt: skip


def test_taken_away_while_it_is_checked(application: TestClient, caplog: pytest.LogCaptureFixture) -> None:
    """The check ends without a word, and begins anew when the class is taken back."""
    new = somebody(application, "ode@sample.example")
    class_id = new.send("POST", "/sample-class")["id"]
    labs = [lab["id"] for lab in new.get("/home")[0]["labs"]]
    new.send("DELETE", f"/classes/{class_id}")
    checks = application.app.state.services.checks  # type: ignore[attr-defined]
    end = time.monotonic() + 120
    while any(checks.run_of(lab).state == "running" for lab in labs) and time.monotonic() < end:
        time.sleep(0.1)
    assert {checks.run_of(lab).state for lab in labs} <= {"done", "cancelled"}
    assert not [r for r in caplog.records if r.levelname == "ERROR"]
    new.send("POST", f"/classes/{class_id}/bin", {"kind": "class", "id": class_id, "class_id": class_id})
    for lab in labs:
        assert new.check(lab)["state"] == "done"
        assert all(t["right"] and t["wrong"] for t in new.get(f"/labs/{lab}")["tasks"])


def test_nobody_else_sees_it(application: TestClient) -> None:
    new = somebody(application, "gro@sample.example")
    made = new.send("POST", "/sample-class")
    other = somebody(application, "una@sample.example")
    assert other.get("/home") == []
    other.get(f"/classes/{made['id']}/students", status=404)


def test_a_lab_is_begun_when_its_spec_says_something_of_its_own(application: TestClient) -> None:
    new = somebody(application, "ines@sample.example")
    class_id = new.send("POST", "/classes", {"name": "Locks"})["id"]
    lab = new.send("POST", f"/classes/{class_id}/labs", {"title": "One"})["id"]

    def card() -> dict[str, object]:
        return next(k for k in new.get("/home") if k["id"] == class_id)["labs"][0]

    assert card()["is_begun"] is False
    task = new.get(f"/labs/{lab}")["tasks"][0]["id"]
    spec = new.get(f"/tasks/{task}/spec")
    new.send("PUT", f"/tasks/{task}/spec", {"text": spec["text"].replace("request & shut", "shut"), "over": ""})
    assert card()["is_begun"] is True
