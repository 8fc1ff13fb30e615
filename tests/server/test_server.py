"""The whole way over HTTP, on a real database with real worker processes."""

from __future__ import annotations

import csv
import io
import re
import time
import zipfile

import pytest

from obento.server.accounts.security import token_hash
from obento.server.deps import Services
from obento.store import comments as comment_store
from obento.store import letters
from obento.store.connection import Store
from tests.server.conftest import Client


def zipped(**files: str) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, text in files.items():
            archive.writestr(name.replace("__", "/"), text)
    return out.getvalue()


def services(client: Client) -> Services:
    return client.http.app.state.services  # type: ignore[attr-defined]


RIGHT = "module m(input a, b, output y); assign y = a & b; endmodule"
SPEC = (
    'obento = "spec/1"\ntitle = "Two"\nunit = "m"\n[ports]\nin = "a b"\nout = "y"\n[expect]\nequations = "y = a & b"\n'
)


def new_lab(ta: Client, title: str, spec: str = SPEC) -> tuple[int, int]:
    class_id = ta.get("/home")[0]["id"]
    lab = ta.send("POST", f"/classes/{class_id}/labs", {"title": title, "due_at": None})["id"]
    task = ta.get(f"/labs/{lab}")["tasks"][0]["id"]
    ta.send("PUT", f"/tasks/{task}/spec", {"text": spec})
    return lab, task


def test_doors_are_shut_without_a_session_or_token(ta: Client) -> None:
    assert ta.http.get("/api/home", cookies={}).status_code == 200
    assert ta.http.post("/api/classes", json={"name": "x"}).status_code == 403
    ta.http.cookies.clear()
    assert ta.http.get("/api/home").status_code == 401
    assert ta.http.get("/api/labs/1").status_code == 401


def test_others_see_nothing_of_a_class(ta: Client, lab: int) -> None:
    from obento.server.accounts.security import hash_password
    from obento.store import accounts

    with services(ta).store.transaction() as c:
        if accounts.person_by_email(c, "else@x.example") is None:
            accounts.add_person(c, "else@x.example", "Somebody Else", hash_password("some-password"))
    other = Client(ta.http).sign_in("else@x.example", "some-password")
    task = 1
    for path in (f"/labs/{lab}", f"/labs/{lab}/intake", f"/labs/{lab}/feedback", f"/tasks/{task}/results"):
        other.get(path, status=404)
    other.send("PUT", "/handins/1/owner", {"student_ids": [1]}, status=404)


def test_the_demo_class_by_clusters(ta: Client, lab: int) -> None:
    view = ta.get(f"/labs/{lab}")
    assert [t["title"] for t in view["tasks"]] == ["Lock-gate interlock", "Draught lamp decoder"]
    results = ta.get(f"/tasks/{view['tasks'][0]['id']}/results")
    wrong = [c for c in results["clusters"] if c["kind"] == "wrong"]
    assert len(wrong[0]["members"]) >= 5 and {m["language"] for m in wrong[0]["members"]} == {"verilog", "wiring"}
    assert wrong[0]["strip"] == "pppfpppfpppfpfpp" and wrong[0]["mark"] == 7.5
    assert results["missing"] == ["Jonas Ekdal"]
    assert sum(results["case_failures"]) == sum(
        c["strip"].count("f") * len(c["members"]) + c["strip"].count("u") * len(c["members"]) for c in wrong
    )


def test_intake_settles_by_name_and_asks_for_the_rest(ta: Client, lab: int) -> None:
    intake = ta.get(f"/labs/{lab}/intake")
    entries = {e["label"]: e for e in intake["entries"]}
    assert (
        entries["brenn_okafor"]["team"]
        and entries["04107" if "04107" in entries else "Varga_Ilse_04107"]["who"] == "Ilse Varga"
    )
    assert not intake["entries"][0]["who"] and [p["name"] for p in intake["entries"][0]["proposals"]] == ["Lina Abdal"]
    assert any("../outside.v" in text for d in intake["drops"] for text in d["left_out"])
    late = {e["who"]: e["attempts"] for e in intake["entries"] if any(a["late"] for a in e["attempts"])}
    assert late.keys() == {"Zoe Marlin", "Ravi Sund"} and len(late["Ravi Sund"]) == 2
    ola = next(e for e in intake["entries"] if e["who"] == "Ola Frey")
    asked = [(b["ours"], b["theirs"]) for t in ola["tasks"] for b in t["binding"] if not b["agreed"]]
    assert ("gate_shut", "gate_shutt") in asked
    ta.send("POST", f"/tasks/{ola['tasks'][0]['task_id']}/consents", {"ours": "gate_shut", "theirs": "gate_shutt"})
    again = next(e for e in ta.get(f"/labs/{lab}/intake")["entries"] if e["who"] == "Ola Frey")
    assert ("gate_shut", "gate_shutt") not in [
        (b["ours"], b["theirs"]) for t in again["tasks"] for b in t["binding"] if not b["agreed"]
    ]


def test_only_what_changed_is_checked_again(ta: Client) -> None:
    lab, task = new_lab(ta, "Again")
    ta.drop(lab, "c.zip", zipped(**{"04107__m.v": RIGHT, "04120__m.v": RIGHT.replace("&", "|")}))
    assert ta.check(lab)["total"] == 2
    assert ta.check(lab)["total"] == 0
    assert ta.drop(lab, "c.zip", zipped(**{"04107__m.v": RIGHT}))["repeated"] == 1
    ta.drop(lab, "c.zip", zipped(**{"04120__m.v": RIGHT}))
    assert ta.check(lab)["total"] == 1
    assert [c["kind"] for c in ta.get(f"/tasks/{task}/results")["clusters"]] == ["right"]


def test_a_used_spec_version_never_changes(ta: Client) -> None:
    lab, task = new_lab(ta, "Versions")
    assert ta.get(f"/tasks/{task}/spec")["version"] == 1
    ta.drop(lab, "04107.v", RIGHT.encode())
    ta.check(lab)
    ta.send("PUT", f"/tasks/{task}/spec", {"text": SPEC.replace("a & b", "a | b")})
    assert ta.get(f"/tasks/{task}/spec")["version"] == 2
    with services(ta).store.transaction() as c:
        c.run("UPDATE spec_version SET text = 'changed' WHERE task_id = %s AND number = 1", task)
        assert c.value("SELECT text FROM spec_version WHERE task_id = %s AND number = 1", task) == SPEC
    assert ta.check(lab)["state"] == "done"  # begun when the spec was saved
    assert ta.get(f"/tasks/{task}/results")["waiting"] == 0
    bad = ta.send("POST", f"/tasks/{task}/spec/preview", {"text": SPEC.replace("a & b", "a & q")})
    assert not bad["is_right"] and bad["messages"][0]["line"] == 8


def test_marks_ledger_keeps_a_humans_entry_through_a_recheck(ta: Client) -> None:
    lab, task = new_lab(ta, "Marks")
    ta.drop(lab, "c.zip", zipped(**{"04107__m.v": RIGHT.replace("&", "|"), "04120__m.v": "module m("}))
    ta.check(lab)

    def marks() -> dict[str, dict[str, object]]:
        return {s["number"]: s for s in ta.get(f"/labs/{lab}/feedback")["students"]}

    assert marks()["04107"]["marks"] == [5.0]
    assert marks()["04120"]["marks"] == [None] and marks()["04120"]["held"] == [True]
    handin = marks()["04107"]["handin_id"]
    ta.send("PUT", f"/handins/{handin}/tasks/{task}/mark", {"value": 8, "reason": ""}, status=422)
    ta.send("PUT", f"/handins/{handin}/tasks/{task}/mark", {"value": 8, "reason": "explained it well"})
    ta.send("PUT", f"/tasks/{task}/spec", {"text": SPEC + "[marks]\ntotal = 20\n"})
    ta.check(lab)
    assert marks()["04107"]["marks"] == [8.0] and marks()["04107"]["by_hand"] == [True]
    ta.send("PUT", f"/handins/{handin}/tasks/{task}/mark", {"value": None})
    assert marks()["04107"]["marks"] == [10.0]


def test_two_people_on_one_comment(ta: Client) -> None:
    lab, task = new_lab(ta, "Comments")
    ta.drop(lab, "04107.v", RIGHT.replace("&", "|").encode())
    ta.check(lab)
    key = ta.get(f"/tasks/{task}/results")["clusters"][0]["key"]
    assert ta.send("PUT", f"/tasks/{task}/comments/{key}", {"text": "first", "version": 0})["version"] == 1
    clash = ta.send("PUT", f"/tasks/{task}/comments/{key}", {"text": "second", "version": 0}, status=409)
    assert clash["text"] == "first" and clash["version"] == 1
    assert ta.send("PUT", f"/tasks/{task}/comments/{key}", {"text": "second", "version": 1})["version"] == 2


def store_of(ta: Client) -> Store:
    return ta.http.app.state.services.store  # type: ignore[attr-defined]


def _read(store: Store, token: str) -> bool:
    """Whether the letter behind a link counts as read."""
    with store.transaction() as c:
        row = letters.page_behind(c, token_hash(token))
        assert row is not None
        return c.value("SELECT read_at FROM letter WHERE id = %s", row.id) is not None


def test_from_comment_to_the_students_page(ta: Client) -> None:
    lab, task = new_lab(ta, "Letters", SPEC + '[students]\nsee = "all"\n')
    ta.drop(lab, "c.zip", zipped(**{"04107__lock.v": RIGHT.replace("&", "|"), "04120__m.v": RIGHT}))
    ta.check(lab)
    cluster = next(c for c in ta.get(f"/tasks/{task}/results")["clusters"] if c["kind"] == "wrong")
    text = "Dear {name}, look at {line} of {file}: {right} of {total} <script>alert(1)</script>"
    ta.send("PUT", f"/tasks/{task}/comments/{cluster['key']}", {"text": text, "version": 0})
    assert ta.send("POST", f"/labs/{lab}/release", {"student_ids": None})["letters"] == 2
    assert ta.send("POST", f"/labs/{lab}/release", {"student_ids": None})["unchanged"] == 2
    mails = []
    for _ in range(100):
        mails = [m for m in ta.get("/mailbox") if "Letters" in m["subject"]]
        if len(mails) == 2:
            break
        time.sleep(0.1)
    mail = next(m for m in mails if m["to"].startswith("ilse.varga"))
    assert (
        "5"
        not in re.sub(r"/page/\S+", "", mail["text"])
        .replace("127.0.0.1:8400", "")
        .replace("2026", "")
        .split("until")[0]
    )
    token = re.search(r"/page/(\S+)", mail["text"])
    assert token is not None
    ta.http.cookies.clear()
    head = ta.http.get(f"/api/page/{token[1]}").json()
    assert head["student"] == "Ilse Varga" and "mark" not in head and not head["corrects"]
    again = Client(ta.http).sign_in()
    assert again.send("POST", f"/letter/{token[1]}")["letter"]["mark"] == 5.0  # a look of ours is not reading
    ta.http.cookies.clear()
    assert not _read(store_of(ta), token[1])
    page = ta.http.post(f"/api/letter/{token[1]}").json()["letter"]
    assert _read(store_of(ta), token[1])
    assert page["tasks"][0]["comment"] == "Dear Ilse, look at line 1 of lock.v: 2 of 4 <script>alert(1)</script>"
    assert [r["cell"] for r in page["tasks"][0]["rows"]] == ["f", "f"] and page["mark"] == 5.0
    assert ta.http.get("/api/page/guess").status_code == 404
    again = Client(ta.http).sign_in()
    assert again.send("POST", f"/labs/{lab}/withdraw")["letters"] == 1  # the one that was read stays
    states = {s["number"]: s["letter"] for s in again.get(f"/labs/{lab}/feedback")["students"] if s["letter"] != "none"}
    assert states == {"04107": "read", "04120": "withdrawn"}


def test_csv_of_marks_keeps_the_roster_and_runs_no_formula(ta: Client, lab: int) -> None:
    answer = ta.http.get(f"/api/labs/{lab}/marks.csv", headers=ta.headers)
    rows = list(csv.DictReader(io.StringIO(answer.text.lstrip("\ufeff"))))
    assert rows[0]["number"] == "04107" and rows[0]["group"] == "A" and rows[0]["sum"] == "20"
    assert next(r for r in rows if r["name"] == "Jonas Ekdal")["remark"] == "nothing handed in"


BAD_DROPS = [
    ("a.zip", b"", "called a zip"),
    ("a.zip", b"PK\x03\x04nonsense", "no zip file"),
    ("a.zip", b"\x00\x01\x02", "called a zip"),
]


@pytest.mark.parametrize(("name", "data", "text"), BAD_DROPS)
def test_bad_drops_get_a_sentence_and_change_nothing(ta: Client, lab: int, name: str, data: bytes, text: str) -> None:
    before = ta.get(f"/labs/{lab}/intake")["drops"]
    assert text in ta.drop(lab, name, data, status=422)["detail"]
    assert ta.get(f"/labs/{lab}/intake")["drops"] == before


def test_one_hand_in_never_takes_the_others_down(ta: Client) -> None:
    wide = 'obento = "spec/1"\nunit = "m"\n[ports]\nin = "a[14] b"\nout = "y"\n[expect]\nequations = "y = a[0] & b"\n'
    lab, task = new_lab(ta, "Contained", wide)
    right = "module m(input [13:0] a, input b, output y); assign y = a[0] & b; endmodule"
    slow = """module m(input [13:0] a, input b, output reg y); reg [63:0] t; integer i;
      always @(a or b) begin t = a; i = 0; while (t != 1) begin t = (t[0] ? 3 * t + 1 : t >> 1) + (i > 4000);
      i = i + 1; end y = a[0] & b; end endmodule"""
    bomb = (
        "module m(input [13:0] a, input b, output y); wire [60000:0] w = {60000{a[0]}} * {60000{b}}; assign y ="
        " w[59999]; endmodule"
    )
    ta.drop(
        lab,
        "c.zip",
        zipped(
            **{
                "04107__m.v": right,
                "04120__m.v": slow,
                "04133__m.v": bomb,
                "04146__m.v": "\x00\x01",
                "04159__m.v": "x" * 10_000_000,
            }
        ),
    )
    assert ta.check(lab, 120)["state"] == "done"
    found = {m["name"]: c for c in ta.get(f"/tasks/{task}/results")["clusters"] for m in c["members"]}
    assert found["Ilse Varga"]["kind"] == "right"
    assert all(found[name]["kind"] == "unchecked" for name in ("Nadia Brenn", "Osk Lindqvist") if name in found)


def test_a_check_can_be_cancelled_and_taken_up_again(ta: Client) -> None:
    wide = 'obento = "spec/1"\nunit = "m"\n[ports]\nin = "a[14]"\nout = "y"\n[expect]\nequations = "y = a[0]"\n'
    slow = (
        "module m(input [13:0] a, output reg y); reg [99:0] t; always @(a) begin t = a; while (t != 0) t = (t * 7) ^ (t"
        " >> 3); y = a[0]; end endmodule"
    )
    lab, task = new_lab(ta, "Cancel", wide)
    numbers = [s["number"] for s in ta.get(f"/labs/{lab}/feedback")["students"][:6]]
    ta.drop(lab, "c.zip", zipped(**{f"{n}__m.v": slow for n in numbers}))
    assert ta.send("POST", f"/labs/{lab}/check")["state"] == "running"
    assert ta.send("POST", f"/labs/{lab}/check")["total"] == 6  # a second request joins the first
    ta.send("POST", f"/labs/{lab}/check/cancel")
    run = services(ta).checks.run_of(lab)
    assert run is not None
    for _ in range(400):
        if run.state != "running":
            break
        time.sleep(0.05)
    assert run.state == "cancelled" and ta.get(f"/tasks/{task}/results")["waiting"] > 0


def test_our_own_mistakes_are_not_blamed_on_a_hand_in() -> None:
    from concurrent.futures import Future

    from obento.runner.pool import outcome_of

    future: Future[object] = Future()
    future.set_exception(KeyError("ours"))
    outcome = outcome_of(future, 1.0)  # type: ignore[arg-type]
    assert outcome is not None and "mistake of ours" in outcome.messages[0].text


def test_the_database_away_in_the_middle_of_a_check(ta: Client, database) -> None:  # type: ignore[no-untyped-def]
    lab, task = new_lab(ta, "Away")
    ta.drop(
        lab,
        "c.zip",
        zipped(**{f"{number}__m.v": RIGHT for number in ("04107", "04120", "04133", "04146", "04159", "04172")}),
    )
    run = services(ta).checks.start(lab, None)
    database.stop()
    time.sleep(0.5)
    answer = ta.http.get("/api/home", headers=ta.headers)
    assert answer.status_code == 503 and "database" in answer.json()["detail"]
    address = database.start()
    services(ta).store.address = address
    for _ in range(600):
        if run.state != "running":
            break
        time.sleep(0.05)
    assert run.state == "done"
    assert [len(c["members"]) for c in ta.get(f"/tasks/{task}/results")["clusters"]] == [6]


def test_a_person_can_be_erased(ta: Client) -> None:
    lab, _ = new_lab(ta, "Erase")
    class_id = ta.get("/home")[0]["id"]
    ta.http.post(
        f"/api/classes/{class_id}/roster",
        files={"file": ("r.csv", b"number,name,email\n9999,Erica Gone,e@x.example\n")},
        headers=ta.headers,
    )
    ta.drop(lab, "9999.v", RIGHT.encode())
    ta.check(lab)
    ta.send("POST", f"/labs/{lab}/release", {"student_ids": None})
    student = next(s for s in ta.get(f"/labs/{lab}/feedback")["students"] if s["number"] == "9999")
    ta.send("DELETE", f"/classes/{class_id}/students/{student['student_id']}")
    with services(ta).store.transaction() as c:
        assert c.value("SELECT COUNT(*) FROM letter WHERE student_id = %s", student["student_id"]) == 0
        assert (
            c.value("SELECT COUNT(*) FROM attempt a JOIN handin h ON h.id = a.handin_id WHERE h.lab_id = %s", lab) == 0
        )
        assert c.value("SELECT name FROM student WHERE id = %s", student["student_id"]) == ""
        assert c.value("SELECT COUNT(*) FROM delivery WHERE address = 'e@x.example'") == 0


def test_the_description_of_the_interface_is_whole(ta: Client) -> None:
    schema = ta.get("/openapi.json")
    assert len(schema["paths"]) > 25
    for path, methods in schema["paths"].items():
        for method, operation in methods.items():
            assert operation.get("description"), (method, path)


def test_a_transaction_is_all_or_nothing(ta: Client) -> None:
    store = services(ta).store
    with store.transaction() as c:
        before = c.value("SELECT COUNT(*) FROM audit")
    with pytest.raises(RuntimeError), store.transaction() as c:
        c.run("INSERT INTO audit (at, action, subject, detail) VALUES (NOW(), 'x', 'y', '')")
        raise RuntimeError
    with store.transaction() as c:
        assert c.value("SELECT COUNT(*) FROM audit") == before
    assert comment_store.EditedMeanwhile("comment", "a", 1).version == 1
