"""Why it is wrong, and telling the class, over HTTP: circuit, hand drive, what-if, drafts, effects, marks."""

from __future__ import annotations

import io
import time
from typing import Any

import openpyxl
import pytest

from tests.server.conftest import Client
from tests.server.small import WRONG, Small, zipped
from tests.sluice import SPEC


@pytest.fixture
def small(ta: Client) -> Small:
    return Small(ta).hand_in(
        tomo_arakida=WRONG,
        ilse_varga=WRONG.replace("high | n", "high & n"),
        osk_lindqvist=WRONG.replace("assign", "assign  "),
    )


def test_the_circuit_with_values_and_what_explains(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/review/{small.handin('Tomo Arakida')}"
    view = ta.get(f"{path}/circuit")
    assert view["trouble"] == "" and sorted(p["kind"] for p in view["parts"]) == [
        "input",
        "input",
        "not",
        "or",
        "output",
    ]
    assert view["cases"] == [row["index"] for row in ta.get(path)["rows"]]
    gate = next(p for p in view["parts"] if p["kind"] == "or")
    assert gate["line"] == 3 and view["explains"] == [gate["pins"][-1]["id"]]
    output = next(p for p in view["parts"] if p["kind"] == "output")
    got = [view["digits"][str(output["pins"][0]["bits"][0])][i] for i in range(4)]
    assert got == [row["actual"][0] for row in ta.get(path)["rows"]]


def test_driving_by_hand(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/review/{small.handin('Tomo Arakida')}/hand"
    found = ta.send("POST", path, {"moves": [{"inputs": ["0", "0"]}, {"inputs": ["0", "0"]}]})
    assert found["outputs"] == [{"name": "warn", "got": "1", "expected": "0", "wrong": True}]
    assert ta.send("POST", path, {"moves": [{"inputs": ["x", "1"]}]})["outputs"][0]["got"] == "x"
    changed = [{"path": "sluice.v", "text": WRONG.replace("|", "&")}]
    assert ta.send("POST", path, {"moves": [{"inputs": ["0", "0"]}], "files": changed})["outputs"][0]["wrong"] is False
    bodies: list[dict[str, Any]] = [
        {"moves": []},
        {"moves": [{"inputs": ["0"]}]},
        {"moves": [{"inputs": ["0", "2"]}]},
        {"moves": [{"inputs": ["0", "0"], "action": "c"}]},
    ]
    for body in bodies:
        ta.send("POST", path, body, status=422)


def test_a_scratch_copy_is_checked_and_nothing_kept(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/review/{small.handin('Tomo Arakida')}"
    before = ta.get(path)
    found = ta.send("POST", f"{path}/what-if", {"files": [{"path": "sluice.v", "text": WRONG.replace("|", "&")}]})
    assert (found["status"], found["passed"], found["turned_right"], found["turned_wrong"]) == (
        "checked",
        4,
        [0, 3],
        [],
    )
    worse = ta.send(
        "POST", f"{path}/what-if", {"files": [{"path": "sluice.v", "text": WRONG.replace("high | n", "1'b1")}]}
    )
    assert worse["passed"] == 1 and worse["turned_wrong"] == [1]
    broken = ta.send("POST", f"{path}/what-if", {"files": [{"path": "sluice.v", "text": "module sluice("}]})
    assert broken["status"] == "unreadable" and broken["messages"] and broken["rows"] == []
    endless = (
        "module sluice(input high, wide, output reg warn); always @* begin warn = 0; while (high) warn = ~warn; end"
        " endmodule"
    )
    assert ta.send("POST", f"{path}/what-if", {"files": [{"path": "sluice.v", "text": endless}]})["status"] in (
        "checked",
        "stopped",
    )
    ta.send("POST", f"{path}/what-if", {"files": [{"path": "../other.v", "text": "x"}]}, status=422)
    circuit = ta.send("POST", f"{path}/circuit", {"files": [{"path": "sluice.v", "text": WRONG.replace("|", "&")}]})
    assert [p["kind"] for p in circuit["parts"]].count("and") == 1 and circuit["explains"] == []
    assert ta.get(path) == before


def test_a_draft_speaks_to_each_in_their_own_words(ta: Client, small: Small) -> None:
    small.mended("Tomo Arakida")
    small.mended("Osk Lindqvist")
    key = next(c["key"] for c in small.clusters() if c["kind"] == "wrong")
    draft = ta.get(f"/tasks/{small.task}/drafts/{key}")
    assert "{name}" in draft["text"] and "{change}" in draft["text"]
    assert ta.send("POST", f"/labs/{small.lab}/drafts") == {"drafted": 1}
    assert ta.send("POST", f"/labs/{small.lab}/drafts") == {"drafted": 0}  # what stands there stays
    letter = small.letter("Tomo Arakida")
    assert letter["comment"].startswith("Tomo, 2 of 4 cases are right.")
    assert (
        "`&` for `|` in line 3" in letter["comment"] and "{" not in letter["comment"] and "[" not in letter["comment"]
    )
    assert small.letter("Ilse Varga")["comment"] == ""
    cluster = next(c for c in small.clusters() if c["kind"] == "wrong")
    assert "`&` for `|` would make every case right" in cluster["sentences"]


@pytest.mark.parametrize("see", ["nothing", "counts"])
def test_what_may_not_be_seen_is_not_said(ta: Client, see: str) -> None:
    small = Small(ta, SPEC + f"[students]\nsee = '{see}'\n").hand_in(tomo_arakida=WRONG)
    small.mended("Tomo Arakida")
    key = small.clusters()[0]["key"]
    text = "{name}: {right}.\n{when}\n{line}\n{change}"
    ta.send("PUT", f"/tasks/{small.task}/comments/{key}", {"text": text, "version": 0, "handin_id": 0})
    letter = small.letter("Tomo Arakida")
    assert letter["comment"] == f"Tomo: {'2' if see == 'counts' else '0'}."
    draft = ta.get(f"/tasks/{small.task}/drafts/{key}")["text"]
    assert "whenever" not in draft and "{change}" not in draft and "{line}" not in draft
    assert letter["rows"] == [] and letter["again"] == ""


def test_hidden_groups_keep_their_values_out_of_drafts(ta: Client) -> None:
    hidden = SPEC + "[cases]\ngroups = { low = 'high == 0' }\n[students]\nhidden = ['low']\n"
    small = Small(ta, hidden).hand_in(tomo_arakida=WRONG, ilse_varga=WRONG.replace("high | n", "high & ~n"))
    by_name = {c["members"][0]["name"]: c["key"] for c in small.clusters()}
    assert (
        "whenever" not in ta.get(f"/tasks/{small.task}/drafts/{by_name['Tomo Arakida']}")["text"]
    )  # wrong in hidden cases too
    assert "whenever {when}" in ta.get(f"/tasks/{small.task}/drafts/{by_name['Ilse Varga']}")["text"]
    told = {m["text"] for m in ta.get(f"/labs/{small.lab}/report")["tasks"][0]["mistakes"]}
    assert told and not any("high = 0" in text or "wide = 0" in text for text in told), told  # in the lecture neither
    for key in by_name.values():
        ta.send(
            "PUT",
            f"/tasks/{small.task}/comments/{key}",
            {"text": "It fails {when}.[ Only {mark} and {when}!]", "version": 0, "handin_id": 0},
        )
    assert small.letter("Tomo Arakida")["comment"] == ""
    assert small.letter("Ilse Varga")["comment"] == "It fails high = 1. Only 5 and high = 1!"


def test_comments_of_earlier_labs_come_back(ta: Client, small: Small) -> None:
    key = next(c["key"] for c in small.clusters() if c["kind"] == "wrong")
    ta.send(
        "PUT",
        f"/tasks/{small.task}/comments/{key}",
        {"text": "Mind what `and` means, {name}.", "version": 0, "handin_id": 0},
    )
    later = Small(ta).hand_in(tomo_arakida=WRONG)
    found = ta.get(f"/tasks/{later.task}/drafts/{later.clusters()[0]['key']}")["bank"]
    assert found[0] == {"text": "Mind what `and` means, {name}.", "place": "Sluices: Sluice warning", "same_kind": True}


def test_a_second_attempt_says_what_turned(ta: Client, small: Small) -> None:
    assert small.review("Tomo Arakida")["since"] is None
    time.sleep(0.01)
    small.hand_in(tomo_arakida=WRONG.replace("high | n", "high"))
    since = small.review("Tomo Arakida")["since"]
    assert since == {
        "attempt": 1,
        "is_known": True,
        "status": "checked",
        "passed": 2,
        "turned_right": [0],
        "turned_wrong": [],
    }


def test_the_best_attempt_counts_where_the_lab_says_so(ta: Client) -> None:
    small = Small(ta)
    ta.send(
        "PUT", f"/labs/{small.lab}/terms", {"title": "Best", "due_at": None, "which_attempt": "best", "late_share": 0}
    )
    ta.drop(small.lab, "a.zip", zipped(tomo_arakida=WRONG.replace("|", "&")))
    ta.drop(small.lab, "b.zip", zipped(tomo_arakida=WRONG))
    ta.check(small.lab)
    review = small.review("Tomo Arakida")
    assert (review["attempt"], review["passed"], review["mark"]) == (1, 4, 10.0)


def test_a_new_version_is_seen_before_it_is_applied(ta: Client, small: Small) -> None:
    ids = [m["handin_id"] for c in small.clusters() for m in c["members"]]
    other = SPEC.replace("high & !wide", "high | !wide") + "[marks]\ntotal = 20\n"
    effects = {
        e["name"]: e
        for e in ta.send("POST", f"/tasks/{small.task}/spec/effects", {"text": other, "handin_ids": ids})["effects"]
    }
    tomo, ilse = effects["Tomo Arakida"], effects["Ilse Varga"]
    assert (tomo["kind"], tomo["new_kind"], tomo["mark"], tomo["new_mark"]) == ("wrong", "right", 5.0, 20.0)
    assert (ilse["kind"], ilse["new_kind"], ilse["mark"], ilse["new_mark"]) == ("right", "wrong", 10.0, 10.0)
    assert small.review("Tomo Arakida")["mark"] == 5.0  # nothing was applied
    ta.send("PUT", f"/handins/{ids[0]}/tasks/{small.task}/mark", {"value": 9, "reason": "spoke with me"})
    again = ta.send("POST", f"/tasks/{small.task}/spec/effects", {"text": other, "handin_ids": ids[:1]})["effects"][0]
    assert again["by_hand"] and again["new_mark"] == 9.0
    ta.send("POST", f"/tasks/{small.task}/spec/effects", {"text": "nonsense", "handin_ids": ids}, status=409)


def test_marks_as_tables_with_the_columns_wanted(ta: Client, small: Small) -> None:
    columns = ta.get(f"/labs/{small.lab}/marks/columns")
    assert columns["usual"][:2] == ["number", "name"] and "Sluice warning: right" in columns["columns"]
    wanted = "column=name&column=Sluice%20warning&column=Sluice%20warning%3A%20right&column=letter"
    csv = ta.http.get(f"/api/labs/{small.lab}/marks.csv?{wanted}").content.decode("utf-8-sig").splitlines()
    assert csv[0] == "name,Sluice warning,Sluice warning: right,letter" and "Tomo Arakida,5,2," in csv
    book = openpyxl.load_workbook(io.BytesIO(ta.http.get(f"/api/labs/{small.lab}/marks.xlsx?{wanted}").content))
    rows = [[cell.value for cell in row] for row in book.worksheets[0].iter_rows()]
    assert rows[0] == ["name", "Sluice warning", "Sluice warning: right", "letter"]
    assert ["Tomo Arakida", 5, 2] in [r[:3] for r in rows]
    assert ta.http.get(f"/api/labs/{small.lab}/marks.csv?column=salary").status_code == 422


def test_broken_rules_show_and_weigh(ta: Client) -> None:
    spec = SPEC + "[rules]\nonly_gates = ['nand']\n[marks]\nrules = { only_gates = 4 }\n"
    small = Small(ta, spec).hand_in(ilse_varga=WRONG.replace("high | n", "high & n"))
    review = small.review("Ilse Varga")
    assert review["mark"] == 6.0 and review["mark_reason"].startswith("4 off: uses and (1), not (1)")
    assert small.letter("Ilse Varga")["late"].startswith("4 off")
    ta.send("POST", f"/labs/{small.lab}/drafts")
    assert (
        "not in the way that was asked for: uses and (1), not (1), not among nand."
        in small.letter("Ilse Varga")["comment"]
    )


def test_what_does_not_compile_gets_a_draft_too(ta: Client) -> None:
    small = Small(ta).hand_in(tomo_arakida=WRONG.replace("n;\nendmodule", "n\nendmodule"))
    ta.send("POST", f"/labs/{small.lab}/drafts")
    comment = small.letter("Tomo Arakida")["comment"]
    assert comment.startswith("Tomo, your hand-in could not be checked: ") and "(line 3)" in comment
    ta.get(f"/tasks/{small.task}/review/{small.handin('Tomo Arakida')}/circuit", status=404)


def test_release_of_a_cluster_alone(ta: Client, small: Small) -> None:
    students = {s["name"]: s for s in ta.get(f"/labs/{small.lab}/feedback")["students"]}
    wanted = [students["Tomo Arakida"]["student_id"], students["Osk Lindqvist"]["student_id"]]
    assert ta.send("POST", f"/labs/{small.lab}/release", {"student_ids": wanted})["letters"] == 2
    after = {s["name"]: s["letter"] for s in ta.get(f"/labs/{small.lab}/feedback")["students"]}
    assert after["Tomo Arakida"] == "released" and after["Ilse Varga"] == "none"


def test_the_catch_rate_of_a_text_that_is_not_saved_yet(ta: Client, small: Small) -> None:
    path = f"/tasks/{small.task}/spec/catch-rate"
    assert ta.send("POST", path, {"text": SPEC})["share"] == 1.0
    weak = ta.send("POST", path, {"text": SPEC + "[cases]\nlisted = '''\nhigh wide\n1 0\n'''\n"})
    assert weak["share"] < 1 and weak["missed"][0]["inputs"] and weak["missed"][0]["line"] == 10
    assert ta.send("POST", path, {"text": "unit = 3"})["trouble"] == "the spec has errors; mend it first"
