"""Clocked tasks over HTTP: waves, dumps, letters with their outcomes."""

from __future__ import annotations

import io
import zipfile

import pytest
from vcd.reader import TokenKind, tokenize

from obento.core.check.check import open_spec
from obento.core.check.inspecting.trace import to_vcd, trace_handin
from obento.core.handin import HandinFile
from tests.core.clocked import CLOCK, HEAD, VERILOG
from tests.core.test_benches import PRINTING
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
    assert letter["again"].startswith(
        "From power-up go through the steps of a first day to number 2: ticket should be 1 and is 0"
    )
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
    other = ta.get(f"/tasks/{tickets['task']}/review/{tickets['Mila Petrosh']}/repair")  # her reset waits for the clock
    said = [(c["line"], c["text"]) for c in other["changes"]]
    assert said == [(4, "`or negedge clr_n` in what this process wakes for")]
    assert other["tried"] > 10 and other["is_known"]
    assert ta.http.get(f"/api/tasks/{tickets['task']}/review/{tickets['Finn Aldis']}/repair").status_code == 404


def drop_of(**files: str) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, text in files.items():
            archive.writestr(name.replace("__", "/").replace("_dot_", "."), text)
    return out.getvalue()


def new_task(ta: Client, title: str, spec: str, **beside: str) -> tuple[int, int]:
    """A lab with one task: its spec, and the files beside it."""
    class_id = ta.get("/home")[0]["id"]
    lab = ta.send("POST", f"/classes/{class_id}/labs", {"title": title, "due_at": None})["id"]
    task = ta.get(f"/labs/{lab}")["tasks"][0]["id"]
    for name, text in beside.items():
        answer = ta.http.post(
            f"/api/tasks/{task}/files?provided=false",
            files={"file": (name.replace("_dot_", "."), text.encode())},
            headers=ta.headers,
        )
        assert answer.status_code == 200, answer.text
    saved = ta.send("PUT", f"/tasks/{task}/spec", {"text": spec})
    assert saved["preview"]["is_right"], saved["preview"]["messages"]
    return lab, task


def test_benches_handed_in_are_tried_on_designs(ta: Client) -> None:
    spec = (
        'obento = "spec/1"\ntitle = "Write a bench"\nunit = "tb"\n[bench]\nright = ["ref.v"]\nwrong = ["deaf.v"]\nfail'
        ' = "bad"\n'
    )
    lab, task = new_task(ta, "Benches", spec, ref_dot_v=VERILOG, deaf_dot_v=VERILOG.replace("else if (en)", "else"))
    lazy = PRINTING.replace('#1 try(q === 1, "hold");', "")
    ta.drop(lab, "benches.zip", drop_of(**{"04107__tb_dot_v": PRINTING, "04120__tb_dot_v": lazy}))
    ta.check(lab)
    results = ta.get(f"/tasks/{task}/results")
    assert results["case_labels"] == ["accepts ref.v", "rejects deaf.v"] and results["case_failures"] == [0, 1]
    titles = {c["title"]: [m["name"] for m in c["members"]] for c in results["clusters"]}
    assert titles == {"fails rejects deaf.v": ["Tomo Arakida"], "right on every case": ["Ilse Varga"]}
    wrong = next(c["members"][0]["handin_id"] for c in results["clusters"] if c["kind"] == "wrong")
    review = ta.get(f"/tasks/{task}/review/{wrong}")
    assert review["findings"] == ["it accepts the wrong design deaf.v"] and "--- deaf.v" in review["output"]


def test_dumps_as_evidence(ta: Client) -> None:
    rows = "steps = '''\nclk rst en | q\n. 1 0 | 0\nc 0 1 | 1\nc 0 1 | 2\n'''"
    spec = (
        HEAD.format(i="clk rst en", o="q[2]:dec")
        + CLOCK.format(edge="rise")
        + f'[expect]\n{rows}\n[rules]\nlanguages = ["vcd", "verilog"]\n'
    )
    lab, task = new_task(ta, "Evidence", spec)
    loaded = open_spec("s.toml", spec.encode(), {})
    assert loaded.expectation is not None
    dumps = {}
    for number, text in (("04107", VERILOG), ("04120", VERILOG.replace("q + 1", "q + 2"))):
        trace = trace_handin(loaded.expectation, [HandinFile("a.v", text.encode())], (), {}, 0)
        assert trace is not None
        dumps[f"{number}__scope_dot_vcd"] = to_vcd(trace, "m", 3)
    ta.drop(lab, "dumps.zip", drop_of(**dumps, **{"04133__a_dot_v": VERILOG}))
    ta.check(lab)
    clusters = {c["kind"]: c for c in ta.get(f"/tasks/{task}/results")["clusters"]}
    assert {m["language"] for m in clusters["right"]["members"]} == {"vcd", "verilog"} and len(
        clusters["right"]["members"]
    ) == 2
    assert clusters["wrong"]["strip"] == "pff" and clusters["wrong"]["members"][0]["language"] == "vcd"


def test_the_class_report_has_numbers_and_no_names(ta: Client, tickets: dict[str, int]) -> None:
    report = ta.get(f"/labs/{tickets['lab']}/report")
    task = report["tasks"][0]
    assert (task["right"], task["wrong"], task["unchecked"], task["missing"]) == (7, 15, 1, 8) and sum(
        task["histogram"]
    ) == 22
    assert task["mistakes"][0] == {
        "text": "it acts on the rising edge of clk, and should on the falling one",
        "count": 5,
        "of": 22,
        "task": "",
    }
    assert report["teach_again"][0]["count"] == 5 and task["hardest"][0]["failed"] >= 5
    text = str(report)
    assert not any(name in text for name in tickets if name not in ("task", "lab"))
    table = ta.http.get(f"/api/labs/{tickets['lab']}/report.csv").text
    assert "Berth ticket counter,mistake,it acts on the rising edge" in table.replace('"', "")


COUNTER = """wiring {unit}
  takes clk, clr_n, take
  gives ticket[4], last
  next <- add(ticket, {{3b000, take}})
  ticket <- register(next, fall: clk, clear: !clr_n)
  last <- and(ticket[3], ticket[0])
end
"""


def test_the_board_draws_the_sequences_of_what_is_tried(ta: Client, tickets: dict[str, int]) -> None:
    path = f"/tasks/{tickets['task']}/board"
    start = ta.get(path)
    found = ta.send("POST", path, {"text": COUNTER.format(unit=start["unit"])})
    assert found["rows"] and found["waves"], found["messages"]
    starts = [w["sequences"][w["sequence"]]["first"] for w in found["waves"]]
    assert all(
        any(a <= r["index"] < a + len(w["actions"]) for a, w in zip(starts, found["waves"], strict=True))
        for r in found["rows"]
    )
    by_row = {row["index"]: row for row in found["rows"]}
    for first, waves in zip(starts, found["waves"], strict=True):
        lines = {w["name"]: w for w in waves["waves"]}
        assert list(lines) == ["clk", "clr_n", "take", "ticket", "last"] and lines["ticket"]["expected"]
        bad = {i for a, b in lines["ticket"]["bad"] for i in range(a, b + 1)}
        wrong = {i for i in range(len(waves["actions"])) if by_row.get(first + i, {"wrong": [False]})["wrong"][0]}
        assert wrong <= bad  # rows that are shown say the same as the waves


def test_a_students_waves_say_nothing_of_what_is_right(ta: Client, tickets: dict[str, int]) -> None:
    made = ta.send("PUT", f"/tasks/{tickets['task']}/board/link", {"tells": "rows"})
    token = made["address"].rpartition("/board/")[2]
    unit = ta.get(f"/tasks/{tickets['task']}/board")["unit"]
    found = ta.http.post(f"/api/board/{token}", json={"text": COUNTER.format(unit=unit)}).json()
    assert found["waves"]
    for waves in found["waves"]:
        assert set(waves["cells"]) == {"p"} and all(s["wrong"] == 0 for s in waves["sequences"])
        assert all(not w["expected"] and not w["expected_at"] and not w["bad"] for w in waves["waves"])
