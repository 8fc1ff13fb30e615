"""Clocked tasks over HTTP: waves, dumps, letters with their picture."""

from __future__ import annotations

import io

import pytest
from vcd.reader import TokenKind, tokenize

from tests.server.conftest import Client


@pytest.fixture
def tickets(ta: Client) -> dict[str, int]:
    """The demo's berth tickets: task, and hand-ins by student."""
    home = ta.get("/home")
    lab = next(item["id"] for c in home for item in c["labs"] if "Tickets" in item["title"])
    ta.check(lab)
    task = ta.get(f"/labs/{lab}")["tasks"][0]["id"]
    results = ta.get(f"/tasks/{task}/results")
    return {"task": task, "lab": lab} | {m["name"]: m["handin_id"] for c in results["clusters"] for m in c["members"]}


def test_clusters_say_the_slip(ta: Client, tickets: dict[str, int]) -> None:
    results = ta.get(f"/tasks/{tickets['task']}/results")
    titles = {c["title"]: len(c["members"]) for c in results["clusters"] if c["kind"] == "wrong"}
    assert titles["it acts on the rising edge of clk, and should on the falling one"] == 5
    assert "`" not in "".join(titles) and results["clocked"]
    assert all(n > 0 for n in results["case_failures"])  # only steps that tell something
    first = results["case_clusters"][0]
    assert first and all(results["clusters"][n]["kind"] == "wrong" for n in first)


def test_waves_of_a_hand_in(ta: Client, tickets: dict[str, int]) -> None:
    path = f"/tasks/{tickets['task']}/review/{tickets['Caelan Roy']}/waves"
    view = ta.get(f"{path}?sequence=0&wanted=count")
    assert view["actions"] == ".ccc" + "rf." and view["cells"] == "pfFppFp"
    lines = {w["name"]: w for w in view["waves"]}
    assert list(lines) == ["clk", "clr_n", "take", "ticket", "last", "count"]
    assert lines["ticket"]["bad"] == [[1, 2], [5, 5]] and lines["ticket"]["expected"][:2] == ["0000", "0001"]
    assert lines["count"]["kind"] == "inner" and "count" in view["inner"]
    assert ta.http.get(f"/api{path}?sequence=99").status_code == 404


def test_the_dump_is_read_by_another_library(ta: Client, tickets: dict[str, int]) -> None:
    text = ta.http.get(f"/api/tasks/{tickets['task']}/review/{tickets['Caelan Roy']}/waves.vcd?sequence=0")
    assert text.headers["content-disposition"].startswith("attachment")
    names = [t.var.reference for t in tokenize(io.BytesIO(text.content)) if t.kind is TokenKind.VAR]
    assert names == ["clk", "clr_n", "take", "ticket", "last", "count"]


def test_the_letter_shows_the_steps_around(ta: Client, tickets: dict[str, int]) -> None:
    students = ta.get(f"/labs/{tickets['lab']}/feedback")["students"]
    student = next(s["student_id"] for s in students if s["name"] == "Caelan Roy")
    letter = ta.get(f"/labs/{tickets['lab']}/letters/{student}")["tasks"][0]
    assert letter["waves"]["actions"] == ".cccrf." and letter["waves"]["offset"] == 0
    assert letter["again"].startswith("From power-up go through the steps of a first day to number 2: ticket should be 1 and is 0")
    assert len(letter["rows"]) <= 10


def test_a_hand_in_that_never_ends_its_trace_is_contained(ta: Client, tickets: dict[str, int]) -> None:
    wrong = ta.http.get(f"/api/tasks/{tickets['task']}/review/{tickets['Finn Aldis']}/waves")
    assert wrong.status_code == 404  # it was never checked


def test_the_smallest_change_on_demand(ta: Client, tickets: dict[str, int]) -> None:
    found = ta.get(f"/tasks/{tickets['task']}/review/{tickets['Osk Lindqvist']}/repair")
    assert (
        found["changes"] == [{"file": "04146/ticket_counter.v", "line": 4, "text": "`negedge clk` for `posedge clk`"}]
        or found["changes"][0]["line"] == 4
    )
    none = ta.get(f"/tasks/{tickets['task']}/review/{tickets['Mila Petrosh']}/repair")
    assert none["changes"] == [] and none["tried"] > 10 and none["is_known"]
    assert ta.http.get(f"/api/tasks/{tickets['task']}/review/{tickets['Finn Aldis']}/repair").status_code == 404
