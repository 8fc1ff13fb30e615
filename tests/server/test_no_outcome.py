"""What has no outcome: a unit that stands in two files is asked, a machine without time leaves a hand-in unchecked."""

from __future__ import annotations

import io
import zipfile

import pytest
from fastapi.testclient import TestClient

from obento.runner.worker import busy
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
    monkeypatch.setattr(pool, "submit", lambda task, done: real(task, lambda _: done(busy(1))))
    ta.drop(small.lab, "class.zip", zipped(Weyn_Lotte=RIGHT, zoe_marlin=WRONG))
    assert ta.check(small.lab)["busy"] == 2
    results = ta.get(f"/tasks/{small.task}/results")
    assert results["waiting"] == 2 and not any(c["members"] for c in results["clusters"] if c["kind"] != "missing")
    monkeypatch.undo()
    assert ta.check(small.lab)["busy"] == 0
    assert ta.get(f"/tasks/{small.task}/results")["waiting"] == 0
