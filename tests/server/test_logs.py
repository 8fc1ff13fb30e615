"""What is logged: enough to find a mistake, nothing of what was handed in, and no links."""

from __future__ import annotations

import json
import logging

import pytest
from fastapi.testclient import TestClient

from obento.server.logs import JsonLines
from tests.server.conftest import Client


def test_requests_are_logged_by_route(ta: Client, caplog: pytest.LogCaptureFixture) -> None:
    caplog.set_level(logging.INFO, "obento.requests")
    secret = "s" * 43
    ta.http.get(f"/api/page/{secret}")
    ta.http.get(f"/api/invitation/{secret}")
    ta.http.get(f"/welcome/{secret}")
    fields = [r.__dict__["fields"] for r in caplog.records if r.name == "obento.requests"]
    assert [(f["route"], f["status"]) for f in fields[:2]] == [
        ("GET /api/page/{token}", 404),
        ("GET /api/invitation/{token}", 404),
    ]
    lines = [JsonLines().format(r) for r in caplog.records]
    assert not any(secret in line for line in lines)
    assert all(json.loads(line)["time"].endswith("+00:00") for line in lines)


def test_of_a_mistake_its_kind_and_place(
    application: TestClient, ta: Client, caplog: pytest.LogCaptureFixture, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object) -> None:
        raise KeyError("module secret(input a)")

    monkeypatch.setattr(application.app.state.services.answers, "of", broken)  # type: ignore[attr-defined]
    answer = ta.http.get("/api/home", headers=ta.headers)
    assert answer.status_code == 500 and "secret" not in answer.text
    (record,) = [r for r in caplog.records if r.exc_info]
    line = json.loads(JsonLines().format(record))
    assert line["text"] == "GET /api/home failed" and line["error"] == "KeyError"
    assert "secret" not in json.dumps(line) and any("routes.py:" in place for place in line["at"])
