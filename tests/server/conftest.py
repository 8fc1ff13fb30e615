"""A running application on the tests' own database, with the demo class loaded and checked once."""

from __future__ import annotations

import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from obento.demo.load import DEMO_PASSWORD, DEMO_TA
from obento.server.app import create_app
from obento.server.settings import Settings
from obento.store.mariadb import PrivateServer
from tests.demo_class import DemoClass


class Client:
    """A signed-in person."""

    def __init__(self, http: TestClient) -> None:
        self.http = http
        self.headers: dict[str, str] = {}

    def sign_in(self, email: str = DEMO_TA, password: str = DEMO_PASSWORD) -> Client:
        answer = self.http.post("/api/sign-in", json={"email": email, "password": password})
        assert answer.status_code == 200, answer.text
        self.headers = {"X-Csrf": answer.json()["csrf"]}
        return self

    def get(self, path: str, status: int = 200):  # type: ignore[no-untyped-def]
        answer = self.http.get(f"/api{path}", headers=self.headers)
        assert answer.status_code == status, answer.text
        return answer.json() if "json" in answer.headers["content-type"] else answer

    def send(self, method: str, path: str, body: object = None, status: int = 200, **more: object):  # type: ignore[no-untyped-def]
        answer = self.http.request(method, f"/api{path}", json=body, headers=self.headers, **more)  # type: ignore[arg-type]
        assert answer.status_code == status, answer.text
        return answer.json()

    def drop(self, lab: int, name: str, data: bytes, status: int = 200):  # type: ignore[no-untyped-def]
        answer = self.http.post(f"/api/labs/{lab}/drops", files={"file": (name, data)}, headers=self.headers)
        assert answer.status_code == status, answer.text
        return answer.json()

    def check(self, lab: int, seconds: float = 60) -> dict[str, object]:
        """Check and wait for the end."""
        view = self.send("POST", f"/labs/{lab}/check")
        end = time.monotonic() + seconds
        while view["state"] == "running" and time.monotonic() < end:
            time.sleep(0.05)
            lines = self.http.get(f"/api/labs/{lab}/check/events", headers=self.headers).text.splitlines()
            import json

            view = json.loads(lines[-2].removeprefix("data: "))
        return view


@pytest.fixture(scope="module")
def application(demo_class: DemoClass, database: PrivateServer, root: Path, var_folder: Path) -> Iterator[TestClient]:
    demo_class.put_back()
    settings = Settings(root=root, var=var_folder / "server", check_seconds=8)
    with TestClient(create_app(settings, database.address)) as http:
        yield http


@pytest.fixture
def ta(application: TestClient) -> Client:
    application.cookies.clear()
    return Client(application).sign_in()


@pytest.fixture
def lab(ta: Client) -> int:
    """The demo lab, checked."""
    lab_id = ta.get("/home")[0]["labs"][0]["id"]
    ta.check(lab_id)
    return int(lab_id)
