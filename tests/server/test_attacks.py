"""Specs, hand-ins and patterns that want everything: bounded, and nobody else waits for them."""

from __future__ import annotations

import time
from concurrent.futures import ThreadPoolExecutor

import pytest
from fastapi.testclient import TestClient

from tests.server.conftest import Client
from tests.server.small import WRONG, Small

MODEL = """obento = "spec/1"
unit = "sluice"
[ports]
in = "{i}"
out = "warn"
[expect]
{expect}
"""
HOSTILE_SPECS = {
    "a formula that is nested deep": MODEL.format(
        i="high wide", expect=f"equations = 'warn = {'(' * 50_000}high{')' * 50_000}'"
    ),
    "a formula of many terms": MODEL.format(
        i="high wide", expect=f"equations = 'warn = {' ^ '.join(['high'] * 200_000)}'"
    ),
    "a formula that is not not not": MODEL.format(i="high wide", expect=f"equations = 'warn = {'!' * 100_000}high'"),
    "numbers nested in numbers": "obento = \"spec/1\"\nx = " + "[" * 20_000 + "]" * 20_000,
    "many inputs": MODEL.format(i=" ".join(f"a{i}" for i in range(26)), expect="equations = 'warn = a0'"),
    "a wide multiplication": MODEL.format(i="a[20]", expect=f"equations = 'warn = ({' * '.join(['a'] * 400)}) > 3'"),
    "a table of blanks": MODEL.format(i="high wide", expect="table = '''\n" + "|" * 100_000 + "\n'''"),
    "no text at all": "\n" * 500_000,
}  # fmt: skip


@pytest.fixture(scope="module")
def small(application: TestClient) -> Small:
    application.cookies.clear()
    return Small(Client(application).sign_in()).hand_in(tomo_arakida=WRONG)


@pytest.mark.parametrize("name", HOSTILE_SPECS)
def test_a_hostile_spec_is_answered_within_its_bound(name: str, small: Small, ta: Client) -> None:
    begun = time.monotonic()
    answer = ta.http.post(
        f"/api/tasks/{small.task}/spec/preview", json={"text": HOSTILE_SPECS[name]}, headers=ta.headers
    )
    assert answer.status_code == 200, answer.text[:300]
    view = answer.json()
    assert time.monotonic() - begun < 60
    assert view["is_right"] or view["messages"]
    assert all(len(m["text"]) < 1000 for m in view["messages"])


LOOPING = """module sluice(input high, wide, output reg warn);
  integer i, j, k, n;
  initial begin n = 0; for (i = 0; i < 3000; i = i + 1) for (j = 0; j < 3000; j = j + 1) #0 n = n + 1; end
  always @* warn = high & ~wide;
endmodule
"""


def test_a_model_that_runs_for_ever_stops_nobody(small: Small, application: TestClient) -> None:
    """It is ended by its bound of processor time, and whoever asks for a page meanwhile has it at once."""
    hostile = Client(TestClient(application.app)).sign_in()
    reader = Client(TestClient(application.app)).sign_in()
    files = {"file": ("forever.v", LOOPING)}
    assert hostile.http.post(f"/api/tasks/{small.task}/files", files=files, headers=hostile.headers).status_code == 200
    text = MODEL.format(i="high wide", expect='reference = "forever.v"')

    def preview() -> dict[str, object]:
        return hostile.send("POST", f"/tasks/{small.task}/spec/preview", {"text": text})

    with ThreadPoolExecutor(1) as threads:
        asked = threads.submit(preview)
        waits = []
        while not asked.done():
            begun = time.monotonic()
            reader.get("/home")
            waits.append(time.monotonic() - begun)
            time.sleep(0.1)
        view = asked.result()
    assert view["is_right"] is False or view["messages"] == []
    assert waits and sorted(waits)[len(waits) // 2] < 1.0


PATTERN = """obento = "spec/1"
unit = "sluice"
[ports]
in = "high wide"
out = "warn"
[expect]
bench = "bench.v"
passing = '(?P<check>(a+)+)$'
failing = 'FAIL'
"""
BENCH = 'module bench; initial begin $display("' + "a" * 50 + 'b"); $finish; end endmodule'


def test_a_pattern_that_explodes_is_ended(small: Small, ta: Client) -> None:
    files = {"file": ("bench.v", BENCH)}
    assert ta.http.post(f"/api/tasks/{small.task}/files", files=files, headers=ta.headers).status_code == 200
    begun = time.monotonic()
    view = ta.send("POST", f"/tasks/{small.task}/spec/preview", {"text": PATTERN})
    assert view["messages"] and not view["is_right"] and time.monotonic() - begun < 60


HANDINS = {
    "blank lines": "\n" * 900_000,
    "a word of one letter": "a" * 900_000,
    "brackets": "module sluice(input high, wide, output warn); assign warn = " + "(" * 100_000,
    "comments that never end": "/*" * 200_000,
    "macros that grow": "\n".join(f"`define m{i} `m{i + 1} `m{i + 1}" for i in range(60)) + "\n`define m60 1\n`m0",
    "instances that double": "".join(
        f"module m{i}(input a, output b); m{i + 1} x(a, b), y(a, b); endmodule\n" for i in range(40)
    )
    + "module m40(input a, output b); assign b = a; endmodule\n"
    + "module sluice(input high, wide, output warn); m0 z(high, warn); endmodule",
    "a constant function that calls itself": (
        "module sluice(input high, wide, output warn); function integer f(input integer n);"
        " f = n ? f(n - 1) + f(n - 1) : 0; endfunction localparam P = f(60); assign warn = P; endmodule"
    ),
    "many terms": "module sluice(input high, wide, output warn); assign warn = "
    + "high ^ " * 100_000
    + "wide; endmodule",
    "many processes": "module sluice(input high, wide, output warn); reg r; "
    + "always @* r = high;\n" * 40_000
    + "endmodule",
}  # fmt: skip


@pytest.fixture(scope="module")
def review(application: TestClient) -> str:
    """The address of a hand-in's review."""
    application.cookies.clear()
    small = Small(Client(application).sign_in()).hand_in(tomo_arakida=WRONG)
    return f"/tasks/{small.task}/review/{small.handin('Tomo Arakida')}"


@pytest.mark.parametrize("name", HANDINS)
def test_a_hostile_hand_in_has_an_outcome(name: str, review: str, ta: Client) -> None:
    """Whatever it is: it has an outcome, with a word of why, within its bound."""
    begun = time.monotonic()
    body = {"files": [{"path": "sluice.v", "text": HANDINS[name]}]}
    answer = ta.http.post(f"/api{review}/what-if", json=body, headers=ta.headers)
    assert answer.status_code in (200, 422), answer.text[:300]
    assert time.monotonic() - begun < 60
    if answer.status_code == 200:
        assert answer.json()["messages"] or answer.json()["passed"] == 0
