"""The board over HTTP: an empty one, a circuit tried, sentences, forms; and that nothing of it is kept."""

from __future__ import annotations

import pytest

from tests.server.conftest import Client
from tests.server.small import Small


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
