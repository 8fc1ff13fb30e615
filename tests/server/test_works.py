"""Work that takes a while: how far it is, and stopped so that nothing of it is kept."""

from __future__ import annotations

import threading
from typing import Any

import pytest
from fastapi.testclient import TestClient

from obento.server.errors import Trouble
from obento.server.works import Work, Works
from tests.server.conftest import Client
from tests.server.small import WRONG, Small, zipped

RIGHT = WRONG.replace("|", "&")


def test_a_step_says_how_far_it_is_and_ends_what_was_stopped() -> None:
    works = Works()
    with works.under_way(1, "drop") as work:
        work.step(3, 10)
        seen = works.of(1, "drop")
        assert seen is work and (seen.done, seen.total) == (3, 10)
        assert works.of(2, "drop") is None  # nobody else's
        work.is_stopped = True
        with pytest.raises(Trouble, match="nothing of it was kept") as stopped:
            work.step(4, 10)
        assert stopped.value.status == 409
    assert works.of(1, "drop") is None


def test_without_a_name_it_is_nobodys() -> None:
    works = Works()
    with works.under_way(1, "") as work:
        work.step(1, 2)
        assert works.of(1, "") is None


class Gate:
    """Has the work stand at one of its steps until it is opened."""

    def __init__(self, monkeypatch: pytest.MonkeyPatch, at: int) -> None:
        self.reached, self.opened = threading.Event(), threading.Event()
        step = Work.step

        def waiting(work: Work, done: int, total: int) -> None:
            work.done, work.total = done, total
            if done == at:
                self.reached.set()
                assert self.opened.wait(30)
            step(work, done, total)

        monkeypatch.setattr(Work, "step", waiting)


def begun(ta: Client, method: str, path: str, **what: Any) -> tuple[threading.Thread, list[Any]]:
    """A request under the name `mine`, on its way."""
    answers: list[Any] = []

    def ask() -> None:
        headers = ta.headers | {"X-Work": "mine"}
        answers.append(ta.http.request(method, f"/api{path}", headers=headers, **what))

    thread = threading.Thread(target=ask)
    thread.start()
    return thread, answers


def test_a_drop_is_followed_and_stopped(ta: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    small = Small(ta)
    gate = Gate(monkeypatch, at=2)
    files = {"file": ("class.zip", zipped(tomo_arakida=RIGHT, rui_castane=RIGHT, zoe_marlin=WRONG))}
    thread, answers = begun(ta, "POST", f"/labs/{small.lab}/drops", files=files)
    assert gate.reached.wait(30)
    assert ta.get("/works/mine") == {"done": 2, "total": 3}
    ta.send("DELETE", "/works/mine")
    gate.opened.set()
    thread.join(30)
    assert answers[0].status_code == 409 and "nothing of it was kept" in answers[0].json()["detail"]
    assert ta.get(f"/labs/{small.lab}/intake")["entries"] == []
    assert ta.get("/works/mine") == {"done": 0, "total": 0}


def test_a_release_is_stopped_whole(ta: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    small = Small(ta).hand_in(tomo_arakida=WRONG, rui_castane=RIGHT)
    gate = Gate(monkeypatch, at=1)
    thread, answers = begun(ta, "POST", f"/labs/{small.lab}/release", json={"student_ids": None})
    assert gate.reached.wait(30)
    assert ta.get("/works/mine") == {"done": 1, "total": 2}
    ta.send("DELETE", "/works/mine")
    gate.opened.set()
    thread.join(30)
    assert answers[0].status_code == 409
    assert ta.get(f"/labs/{small.lab}")["sent"] == 0  # not even the first letter


def test_nobody_stops_what_another_waits_for(application: TestClient, ta: Client) -> None:
    work = application.app.state.services.works  # type: ignore[attr-defined]
    with work.under_way(999, "theirs") as theirs:
        ta.send("DELETE", "/works/theirs")
        assert not theirs.is_stopped and ta.get("/works/theirs")["total"] == 0
