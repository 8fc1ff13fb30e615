"""What has no outcome: a unit that stands in two files is asked, a machine without time leaves a hand-in unchecked."""

from __future__ import annotations

import io
import time
import zipfile

import pytest
from fastapi.testclient import TestClient

from obento.runner.worker import not_checked
from obento.server.checking import service
from obento.store import results
from tests.server.conftest import Client
from tests.server.small import WRONG, Small, zipped

RIGHT = WRONG.replace("|", "&")


def handed_in(ta: Client, small: Small) -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr("Weyn_Lotte_04289/first/sluice.v", WRONG)
        archive.writestr("Weyn_Lotte_04289/second/sluice.v", RIGHT)
        archive.writestr("Weyn_Lotte_04289/second/sluice.v.bak", WRONG)
        archive.writestr("zoe.marlin/sluice.v", RIGHT)
    ta.drop(small.lab, "class.zip", out.getvalue())
    ta.check(small.lab)


def test_which_file_counts_is_asked_and_kept(ta: Client) -> None:
    small = Small(ta)
    handed_in(ta, small)

    def entry():  # type: ignore[no-untyped-def]
        return next(e for e in ta.get(f"/labs/{small.lab}/intake")["entries"] if e["label"].startswith("Weyn"))

    asked = entry()
    (task,) = asked["tasks"]
    assert task["status"] == "no_unit" and not asked["settled"]
    assert task["twice"] == [{"unit": "sluice", "files": ["first/sluice.v", "second/sluice.v"]}]
    texts = ta.get(f"/handins/{asked['handin_id']}/tasks/{small.task}/twice")
    assert [(t["path"], t["text"]) for t in texts] == [("first/sluice.v", WRONG), ("second/sluice.v", RIGHT)]
    assert (
        ta.get(f"/tasks/{small.task}/review/{asked['handin_id']}")["mark"] is None
    )  # no zero for what nobody could decide
    place = f"/handins/{asked['handin_id']}/tasks/{small.task}/choice"
    for path, passed in (("second/sluice.v", 4), ("first/sluice.v", 2)):
        ta.send("PUT", place, {"ours": "@file:sluice", "theirs": path})
        ta.check(small.lab)
        review = ta.get(f"/tasks/{small.task}/review/{asked['handin_id']}")
        assert review["status"] == "checked" and review["passed"] == passed, review["messages"]
        assert entry()["tasks"][0]["twice"] == []


def test_a_busy_machine_leaves_a_hand_in_unchecked(
    ta: Client, application: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    small = Small(ta)
    pool = application.app.state.services.checks.pool  # type: ignore[attr-defined]
    real = pool.submit
    monkeypatch.setattr(pool, "submit", lambda task, done: real(task, lambda _: done(not_checked("too busy"))))
    ta.drop(small.lab, "class.zip", zipped(Weyn_Lotte=RIGHT, zoe_marlin=WRONG))
    assert ta.check(small.lab)["not_checked"] == 2
    results = ta.get(f"/tasks/{small.task}/results")
    assert results["waiting"] == 2 and not any(c["members"] for c in results["clusters"] if c["kind"] != "missing")
    monkeypatch.undo()
    assert ta.check(small.lab)["not_checked"] == 0
    assert ta.get(f"/tasks/{small.task}/results")["waiting"] == 0


def test_workers_that_come_to_a_stand_are_replaced(
    ta: Client, application: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A run without progress is noticed by the server, ended and done again; nobody has to ask for it."""
    small = Small(ta)
    pool = application.app.state.services.checks.pool  # type: ignore[attr-defined]
    real = pool.submit
    lost: list[object] = []

    def swallowed(task: object, done: object):  # type: ignore[no-untyped-def]
        if len(lost) < 2:
            lost.append(task)
            return real(task, lambda _: None)  # it ends, and nobody hears of it
        return real(task, done)

    monkeypatch.setattr(pool, "submit", swallowed)
    monkeypatch.setattr(service, "_QUIET", 1.0 - 2 * pool.longest)
    ta.drop(small.lab, "class.zip", zipped(Weyn_Lotte=RIGHT, zoe_marlin=WRONG))
    run = ta.check(small.lab)
    assert len(lost) == 2 and run["state"] == "done" and run["not_checked"] == 0
    assert ta.get(f"/tasks/{small.task}/results")["waiting"] == 0


def test_what_was_left_unchecked_is_checked_by_the_next_start(
    ta: Client, application: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    small = Small(ta)
    services = application.app.state.services  # type: ignore[attr-defined]
    pool = services.checks.pool
    real = pool.submit
    monkeypatch.setattr(pool, "submit", lambda task, done: real(task, lambda _: done(not_checked("the disk is full"))))
    ta.drop(small.lab, "class.zip", zipped(zoe_marlin=WRONG))
    assert ta.check(small.lab)["reasons"] == ["the disk is full"]
    monkeypatch.undo()
    services.checks.resume()  # as a server does that starts
    end = time.monotonic() + 30
    while ta.get(f"/tasks/{small.task}/results")["waiting"] and time.monotonic() < end:
        time.sleep(0.05)
    assert ta.get(f"/tasks/{small.task}/results")["waiting"] == 0
    with services.store.transaction() as c:
        assert not [run for run in results.unfinished_runs(c) if run.lab_id == small.lab]
