"""The board over HTTP: an empty one, a circuit tried, sentences, forms; and that nothing of it is kept."""

from __future__ import annotations

import pytest
from starlette.testclient import TestClient

from tests.server.conftest import Client
from tests.server.small import Small
from tests.sluice import SPEC


@pytest.fixture
def small(ta: Client) -> Small:
    return Small(ta)


def test_a_circuit_is_stated_and_tried(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/board"
    start = ta.get(path)
    assert start["text"].startswith("wiring sluice\n  takes ") and start["text"].endswith("end\n")
    text = start["text"]
    empty = ta.send("POST", path, {"text": text})
    assert empty["passed"] < empty["total"] and any("left open" in m["text"] for m in empty["messages"])
    output = next(p["name"] for p in start["ports"] if p["direction"] == "out")
    inputs = [p["name"] for p in start["ports"] if p["direction"] == "in"]
    stated = ta.send("POST", f"{path}/state", {"text": text, "said": f"{output} = {inputs[0]} & !{inputs[1]}"})
    assert stated["trouble"] == "" and f"{output} <- and({inputs[0]}, !{inputs[1]})" in stated["text"]
    tried = ta.send("POST", path, {"text": stated["text"]})
    assert tried["gates"] == 2 and tried["levels"] == 2
    kinds = {p["kind"] for p in tried["circuit"]["parts"]}
    assert {"and", "input", "output"} <= kinds and len(tried["circuit"]["cases"]) == len(tried["rows"])


def test_a_form_is_right_and_made_of_what_it_says(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/board"
    for form in ("two-level", "nand", "nor"):
        made = ta.send("POST", f"{path}/form", {"form": form})
        tried = ta.send("POST", path, {"text": made["text"]})
        assert tried["passed"] == tried["total"] > 0
        assert made["steps"][-1] == f"run over all {tried['total']} cases: right in each"
        if form != "two-level":
            assert set(tried["by_kind"]) == {form}


def test_what_is_wrong_is_told_and_nothing_breaks(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/board"
    broken = ta.send("POST", path, {"text": "wiring sluice\n  takes"})
    assert broken["status"] != "checked" and broken["messages"] and broken["circuit"]["parts"] == []
    wrong = ta.send("POST", f"{path}/state", {"text": "wiring sluice\nend\n", "said": "y ="})
    assert wrong["trouble"] and wrong["text"] == "wiring sluice\nend\n"
    answer = ta.http.post(f"/api{path}/form", json={"form": "lace"}, headers=ta.headers)
    assert answer.status_code == 422
    before = ta.get(f"/tasks/{small.task}/results")
    ta.send("POST", path, {"text": ta.get(path)["text"]})
    assert ta.get(f"/tasks/{small.task}/results") == before


def test_a_task_of_nor_alone_offers_nothing_else_and_makes_expressions_of_it(ta: Client) -> None:
    small = Small(ta, SPEC + "\n[rules]\nonly_gates = ['nor']\nmax_gates = 3\n")
    path = f"/tasks/{small.task}/board"
    start = ta.get(path)
    assert start["parts"] == ["nor"] and start["max_gates"] == 3
    body = {"text": start["text"], "said": "warn = high & !wide", "only": start["only_gates"]}
    stated = ta.send("POST", f"{path}/state", body)
    tried = ta.send("POST", path, {"text": stated["text"]})
    assert tried["passed"] == tried["total"] and set(tried["by_kind"]) == {"nor"} and tried["gates"] <= 3
    assert all(rule["ok"] for rule in tried["rules"])


# The link for students.

HIDDEN = """obento = "spec/1"
title = "Sluice warning"
unit = "sluice"
[ports]
in = "high wide"
out = "warn"
[expect]
equations = "warn = high & !wide"
[cases]
groups = { raise = "high == 1" }
[students]
hidden = ["raise"]
"""
RIGHT = "wiring sluice\n  takes high, wide\n  gives warn\n  warn <- and(high, !wide)\nend\n"


def learner(ta: Client, small: Small, tells: str) -> tuple[str, TestClient]:
    """A link that tells so much, and somebody who has nothing but that."""
    made = ta.send("PUT", f"/tasks/{small.task}/board/link", {"tells": tells})
    return made["address"].rpartition("/board/")[2], TestClient(ta.http.app, raise_server_exceptions=False)


@pytest.mark.parametrize("tells", ["nothing", "count", "rows"])
def test_a_students_board_tells_what_the_task_says(ta: Client, small: Small, tells: str) -> None:
    token, somebody = learner(ta, small, tells)
    start = somebody.get(f"/api/board/{token}").json()
    assert start["tells"] == tells and "cases" not in start and start["title"] == "Sluice warning"
    found = somebody.post(f"/api/board/{token}", json={"text": RIGHT.replace("!wide", "wide"), "who": "a"}).json()
    assert [row["outputs"] for row in found["rows"]] == [["0"], ["0"], ["0"], ["1"]]
    assert (found["passed"], found["total"]) == ((2, 4) if tells != "nothing" else (None, None))
    assert [row["right"] for row in found["rows"]] == ([True, True, False, False] if tells == "rows" else [None] * 4)
    assert found["circuit"]["parts"] and not found["circuit"]["likeness"] and not found["circuit"]["explains"]
    said = somebody.post(f"/api/sentence/{token}", json={"text": RIGHT, "said": "warn = high | wide"}).json()
    assert "warn <- or(high, wide)" in said["text"]


def test_verilog_may_be_tried_as_well(ta: Client, small: Small) -> None:
    token, somebody = learner(ta, small, "count")
    text = "module sluice(input high, wide, output warn); assign warn = high & ~wide; endmodule"
    found = somebody.post(f"/api/board/{token}", json={"text": text, "language": "v"}).json()
    assert (found["passed"], found["total"]) == (4, 4)


def test_hidden_cases_are_not_run_and_not_counted(ta: Client) -> None:
    small = Small(ta, HIDDEN)
    token, somebody = learner(ta, small, "rows")
    found = somebody.post(f"/api/board/{token}", json={"text": RIGHT}).json()
    assert [row["inputs"] for row in found["rows"]] == [["0", "0"], ["0", "1"]]
    assert (found["passed"], found["total"], found["cases"]) == (2, 2, 2)
    assert all(len(digits) == 2 for digits in found["circuit"]["digits"].values())


def test_a_link_is_withdrawn_and_others_find_nothing(ta: Client, small: Small) -> None:
    token, somebody = learner(ta, small, "count")
    assert ta.get(f"/tasks/{small.task}/board/link")["address"].endswith(token)
    again, _ = learner(ta, small, "rows")
    assert again == token  # the address stays when it tells something else
    assert somebody.put(f"/api/tasks/{small.task}/board/link", json={"tells": "rows"}).status_code == 401
    assert somebody.get("/api/board/guess").status_code == 404
    assert somebody.post(f"/api/board/{token}", json={"text": "x" * 500_000}).status_code == 422
    assert ta.send("DELETE", f"/tasks/{small.task}/board/link")["address"] == ""
    assert somebody.get(f"/api/board/{token}").status_code == 404
    assert somebody.post(f"/api/board/{token}", json={"text": RIGHT}).status_code == 404


def test_two_circuits_are_held_beside_each_other(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/board"
    text = ta.send("POST", f"{path}/form", {"form": "two-level"})["text"]
    other = ta.send("POST", f"{path}/form", {"form": "nor"})["text"]
    same = ta.send("POST", f"{path}/beside", {"text": text, "other": other})
    assert same["differs"] == 0 and same["parts_in"] == [] and same["outputs"] == []
    assert same["one"]["passed"] == same["other"]["passed"] == same["total"]
    empty = ta.send("POST", f"{path}/beside", {"text": text, "other": ta.get(path)["text"]})
    assert empty["differs"] == empty["total"] and len(empty["parts_in"]) == empty["total"]
    assert empty["one"]["circuit"]["cases"] == empty["other"]["circuit"]["cases"]
    broken = ta.send("POST", f"{path}/beside", {"text": text, "other": "module", "language": "v"})
    assert broken["differs"] is None and broken["other"]["messages"]


def test_files_of_other_tasks_are_known_as_blocks(ta: Client, small: Small) -> None:
    other = Small(ta)
    path = f"/tasks/{small.task}/board/blocks"
    before = ta.get(path)
    text = "wiring pair\n  takes a\n  gives y\n  y <- not(a)\nend\n"
    for name in ("pair.wiring", "notes.txt"):
        answer = ta.http.post(
            f"/api/tasks/{other.task}/files?provided=true", files={"file": (name, text.encode())}, headers=ta.headers
        )
        assert answer.status_code == 200, answer.text
    (found,) = [b for b in ta.get(path) if b not in before]
    assert (found["name"], found["text"]) == ("pair.wiring", text) and found["task"]
    assert all(b["name"] != "pair.wiring" for b in ta.get(f"/tasks/{other.task}/board/blocks"))  # its own is there


def test_students_begin_with_what_was_put_there_for_them(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/board/link"
    empty = ta.get(f"/tasks/{small.task}/board")["text"]
    begun = empty.replace("end\n", "  // go on here\nend\n")
    made = ta.send("PUT", path, {"tells": "nothing", "start": begun})
    token = made["address"].rpartition("/")[2]
    somebody = TestClient(ta.http.app)
    assert made["start"] == begun and somebody.get(f"/api/board/{token}").json()["text"] == begun
    ta.send("PUT", path, {"tells": "count"})
    assert somebody.get(f"/api/board/{token}").json()["text"] == empty
