"""Whatever comes: an answer that says what is wrong, never an error of our own."""

from __future__ import annotations

import json
import random
import re
from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from hypothesis.strategies import SearchStrategy

from obento.demo.load import DEMO_PASSWORD, DEMO_TA
from obento.server.app import create_app
from obento.server.rights import RIGHTS
from obento.server.settings import Settings
from obento.store.mariadb import PrivateServer
from tests.server.conftest import Client
from tests.server.small import WRONG, Small
from tests.server.test_rights import Places

ODD_TEXTS = [
    "",
    " ",
    "\0",
    "\ud800",
    "a\u2028b",
    "é" * 70_000,
    "../..",
    "'; --",
    "{name}",
    "99999999999999999999",
    "x" * 300,
]
ODD_NUMBERS = [0, -1, 1, 2**31, 2**63, 10**40, 0.5, float("nan"), float("inf"), -0.0]
ODD_MOMENTS = [
    "0001-01-01T00:00:00", "9999-12-31T23:59:59-14:00", "9999-12-31", "2026-02-30T00:00:00Z", "1e400", "-1",
    "2026-11-30T10:00:00+23:59", 1e308,
]  # fmt: skip
ODD: list[Any] = [None, True, [], {}, [[]], *ODD_TEXTS, *ODD_NUMBERS, *ODD_MOMENTS]
NEVER = {"POST /api/sign-out", "POST /api/sign-in", "POST /api/me/password", "PUT /api/classes/{class_id}/rights"}
"""What would end this person's own way in."""


def shape(schema: dict[str, Any], all_of: dict[str, Any]) -> SearchStrategy[Any]:
    """Values that have the form of a schema, and such that nearly have."""
    if "$ref" in schema:
        return shape(all_of[schema["$ref"].rpartition("/")[2]], all_of)
    odd = st.sampled_from(ODD)
    if "anyOf" in schema:
        return st.one_of([shape(s, all_of) for s in schema["anyOf"]])
    match schema.get("type"):
        case "object":
            parts = {k: shape(v, all_of) for k, v in schema.get("properties", {}).items()}
            return st.one_of(st.fixed_dictionaries({}, optional=parts), st.fixed_dictionaries(parts), odd)
        case "array":
            return st.one_of(st.lists(shape(schema.get("items", {}), all_of), max_size=4), odd)
        case "string":
            words = schema.get("enum") or (ODD_MOMENTS if schema.get("format") == "date-time" else ODD_TEXTS)
            return st.one_of(st.text(max_size=20), st.sampled_from(words), odd)
        case "integer" | "number":
            return st.one_of(st.integers(-3, 40), st.sampled_from(ODD_NUMBERS), odd)
        case "boolean":
            return st.one_of(st.booleans(), odd)
    return odd


@pytest.fixture(scope="module")
def places(application: TestClient) -> Places:
    application.cookies.clear()
    return Places(Client(application).sign_in())


def bodies(app: FastAPI) -> list[tuple[str, dict[str, Any], dict[str, Any]]]:
    described = app.openapi()
    schemas = described["components"]["schemas"]
    found = []
    for path, methods in described["paths"].items():
        for method, operation in methods.items():
            content = operation.get("requestBody", {}).get("content", {})
            route = f"{method.upper()} {path}"
            if "application/json" in content and route not in NEVER:
                found.append((route, content["application/json"]["schema"], schemas))
    return found


def test_no_body_is_an_error_of_ours(application: TestClient, places: Places) -> None:
    """Each route that takes a body is given dozens of odd ones, by somebody who may do everything."""
    application.cookies.clear()
    ta = Client(application).sign_in()
    assert isinstance(application.app, FastAPI)
    routes = bodies(application.app)
    assert len(routes) > 15
    for route, schema, schemas in routes:
        path = places.path(route, token="x" * 43) if RIGHTS[route] != "anybody" else route.partition(" ")[2][4:]
        sends_odd_bodies(application, ta.headers, route, path, shape(schema, schemas))


def sends_odd_bodies(
    application: TestClient, headers: dict[str, str], route: str, path: str, of: SearchStrategy[Any]
) -> None:
    @settings(max_examples=25, deadline=None, database=None, suppress_health_check=list(HealthCheck))
    @given(of)
    def send(body: Any) -> None:
        data = json.dumps(body)  # NaN, infinity and halves of characters as they are
        answer = application.request(
            route.partition(" ")[0], f"/api{path}", content=data, headers=headers | {"Content-Type": "application/json"}
        )
        assert answer.status_code < 500 or answer.status_code == 503, (route, body, answer.text[:300])

    send()


RAW = [b"", b"{", b"\xff\xfe", b"[" * 50_000, b'{"a":' * 5_000, b"null", b'"\\ud800"', b"NaN", b"1" * 5_000]


@pytest.mark.parametrize("raw", RAW, ids=[repr(r[:12]) for r in RAW])
def test_no_text_is_an_error_of_ours(ta: Client, places: Places, raw: bytes) -> None:
    for route in ("POST /api/classes", "PUT /api/labs/{lab_id}/terms", "POST /api/tasks/{task_id}/spec/preview"):
        headers = ta.headers | {"Content-Type": "application/json"}
        answer = ta.http.request(route.partition(" ")[0], f"/api{places.path(route)}", content=raw, headers=headers)
        assert answer.status_code in (400, 422), (route, answer.status_code, answer.text[:200])


def test_no_address_is_an_error_of_ours(ta: Client) -> None:
    dice = random.Random(7)
    odd = ["0", "-1", "9" * 30, "1e5", "%00", "%ff", "%ed%a0%80", "x" * 3000, "..%2f..", "١٢", "%F0%9F%98%80"]
    for route in RIGHTS:
        method, path = route.split(" ")
        for _ in range(3):
            filled = "/".join(dice.choice(odd) if part.startswith("{") else part for part in path.split("/"))
            answer = ta.http.request(method, filled, headers=ta.headers, json={}) if "sign-out" not in path else None
            assert answer is None or answer.status_code < 500, (method, filled, answer.text[:200])


def test_headers_of_any_kind(ta: Client) -> None:
    for name, value in [
        ("X-Csrf", "é"),
        ("X-Csrf", "\xff" * 43),
        ("Cookie", "obento_session=\xe9\xff"),
        ("Range", "bytes=9-1"),
    ]:
        answer = ta.http.post("/api/classes", json={"name": "x"}, headers={name: value.encode("latin-1")})
        assert answer.status_code in (401, 403), (name, answer.text)


LISTS = [
    (b"number,name\r1,Ada\r2,Bea\r", 200),  # old line ends
    (b"number,name\r\n1,Ada\n2,Bea", 200),
    (b"number,name\n1," + b"x" * 201, 200),
    (b"number,name\n1," + b"x" * 200_000, 422),
    (b"number,name\n" + b"7" * 101 + b",Ada", 422),
    (b'number,name\n1,"Ada', 200),
    (b"number,name,e-mail\n1,Ada," + b"x" * 300 + b"@y.example", 200),
    (b"number,name,e-mail\n1,Ada,a@x.example\nBcc: b@x.example", 200),  # a row of its own, without an address
    (b"\0" * 1000, 422),
    (b"", 422),
    (b"number,name\n1,\xed\xa0\x80", 200),
]


@pytest.mark.parametrize(("data", "status"), LISTS, ids=[repr(d[:24]) for d, _ in LISTS])
def test_class_lists_of_any_kind(ta: Client, data: bytes, status: int) -> None:
    class_id = ta.send("POST", "/classes", {"name": "Lists", "school": ""})["id"]
    answer = ta.http.post(f"/api/classes/{class_id}/roster", files={"file": ("l.csv", data)}, headers=ta.headers)
    assert answer.status_code == status, answer.text
    if b"@y.example" in data:
        assert "no mail can be sent" in answer.json()["problems"][0]["text"]


def test_a_file_over_the_bound_is_refused_not_cut(ta: Client) -> None:
    small = Small(ta)
    for size, status in ((4_000_000, 200), (4_000_001, 413)):
        answer = ta.http.post(
            f"/api/tasks/{small.task}/files", files={"file": ("t.txt", b"0" * size)}, headers=ta.headers
        )
        assert answer.status_code == status
    assert "nothing of it was taken in" in answer.json()["detail"]


def test_six_drops_for_a_new_student_at_once(ta: Client, application: TestClient) -> None:
    from concurrent.futures import ThreadPoolExecutor

    from tests.server.small import zipped

    small = Small(ta)
    data = [zipped(tomo_arakida=f"{WRONG}// {i}") for i in range(6)]

    def drop(number: int) -> int:
        files = {"file": ("class.zip", data[number])}
        return application.post(f"/api/labs/{small.lab}/drops", files=files, headers=ta.headers).status_code

    with ThreadPoolExecutor(6) as threads:
        assert list(threads.map(drop, range(6))) == [200] * 6
    rows = [e for e in ta.get(f"/labs/{small.lab}/intake")["entries"] if e["label"].startswith("tomo")]
    assert len(rows) == 1 and len(rows[0]["attempts"]) == 6


def test_every_answer_says_what_may_be_loaded_and_kept(ta: Client, application: TestClient) -> None:
    for path in (
        "/",
        "/api/home",
        "/api/docs",
        "/api/openapi.json",
        "/api/nothing",
        "/page/x",
        "/api/page/" + "x" * 43,
    ):
        answer = application.get(path, headers=ta.headers)
        assert "default-src 'self'" in answer.headers["content-security-policy"], path
        assert "noindex" in answer.headers["x-robots-tag"]
        if path.startswith("/api"):
            assert answer.headers["cache-control"] == "no-store", path
    page = application.get("/api/docs").text
    assert ("<script" not in page and "http" not in page.replace("https://", "")) or "//" not in page
    assert "/api/labs/{lab_id}/drops" in page


def test_a_part_of_a_site(database: PrivateServer, root: Path, tmp_path: Path, application: TestClient) -> None:
    """Behind a proxy that hands on one part of a site, every path begins with that part, and cookies stay in it."""
    settings = Settings(root=root, var=tmp_path, public_address="https://college.example/labs/")
    with TestClient(create_app(settings, database.address), base_url="https://college.example") as http:
        assert http.get("/labs/api/health").json()["ok"] is True
        assert '<base href="/labs/">' in http.get("/labs/lab/1/task/2/spec").text
        asset = re.search(r'src="\./(assets/[^"]+)"', http.get("/labs/").text)
        assert asset is not None and "javascript" in http.get(f"/labs/{asset[1]}").headers["content-type"]
        answer = http.post("/labs/api/sign-in", json={"email": DEMO_TA, "password": DEMO_PASSWORD})
        assert answer.status_code == 200
        cookies = answer.headers.get_list("set-cookie")
        assert len(cookies) == 2 and all("Path=/labs" in c and "Secure" in c and "HttpOnly" in c for c in cookies)
        assert http.get("/labs/api/home").status_code == 200
