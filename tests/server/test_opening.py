"""A spec is opened while nothing of the database is held."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager

import pytest
from fastapi.testclient import TestClient

from obento.core.check.check import LoadedSpec
from obento.runner.worker import SpecFiles
from obento.server.deps import Services
from obento.server.specs.opened import NotOpened, OpenedSpecs
from obento.store.connection import Connection
from tests.server.conftest import Client

SPEC = SpecFiles("spec.toml", b"obento = 'spec/1'\n", ())


@pytest.fixture
def transactions(application: TestClient, monkeypatch: pytest.MonkeyPatch) -> Iterator[list[int]]:
    """How many transactions were under way at each opening."""
    services: Services = application.app.state.services  # type: ignore[attr-defined]
    kept, begin = services.opened, services.store.transaction
    under_way = 0
    seen: list[int] = []

    @contextmanager
    def counted(is_shown: bool = True) -> Iterator[Connection]:
        nonlocal under_way
        of_a_request = "AnyIO" in threading.current_thread().name  # not of checks and mails, which go on meanwhile
        with begin(is_shown) as c:
            under_way += of_a_request
            try:
                yield c
            finally:
                under_way -= of_a_request

    def how(files: SpecFiles) -> LoadedSpec:
        seen.append(under_way)
        return files.open()

    monkeypatch.setattr(services.store, "transaction", counted)
    services.opened = OpenedSpecs(how)
    yield seen
    services.opened = kept


def test_pages_open_specs_outside_their_transactions(ta: Client, lab: int, transactions: list[int]) -> None:
    task = ta.get(f"/labs/{lab}")["tasks"][0]["id"]
    assert ta.get(f"/tasks/{task}/results")["clusters"]
    assert transactions and not any(transactions)
    assert ta.get(f"/labs/{lab}/feedback")
    assert transactions and not any(transactions)


def test_a_new_task_is_saved_once(ta: Client, lab: int, transactions: list[int]) -> None:
    before = len(ta.get(f"/labs/{lab}")["tasks"])
    task = ta.send("POST", f"/labs/{lab}/tasks", {"title": "One more"})["id"]
    assert len(ta.get(f"/labs/{lab}")["tasks"]) == before + 1
    assert transactions and not any(transactions)
    ta.send("PUT", f"/tasks/{task}/spec", {"text": "title = 'none'"})
    assert not any(transactions)


def test_work_begins_again_for_each_spec() -> None:
    opened = OpenedSpecs()
    tries: list[int] = []

    def work() -> str:
        tries.append(1)
        opened.inside(SPEC)
        return "done"

    assert opened.meanwhile(work) == "done" and len(tries) == 2
    with pytest.raises(NotOpened):
        OpenedSpecs().inside(SPEC)
