"""The evening of a real class: three tasks, one zip each, namesakes, second attempts, late ones, and letters that are
corrected. Who handed in what, for which task, when, and what goes out."""

from __future__ import annotations

import io
import re
import time
import zipfile
from datetime import datetime, timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from obento.server.feedback.placeholders import fill
from obento.store import trash
from obento.store.connection import Store
from obento.store.erased_for_good import erasures
from tests.server.conftest import Client

SPEC = """obento = "spec/1"
title = "{unit}"
unit = "{unit}"
[ports]
in = "a b"
out = "y"
[expect]
equations = "y = {right}"
[students]
see = "all"
"""
LIST = """number,name,email,group,team
7001,Ada Berg,ada1@x.example,A,
7002,Ada Berg,ada2@x.example,B,
7003,Olaf Dahl,olaf@x.example,A,
7004,Sunna Brekke,sunna@x.example,B,locks
7005,Eske Holm,eske@x.example,B,locks
7006,Rui Costa,,A,
"""
RIGHT = {"one": "a & b", "two": "a | b", "three": "a ^ b"}
NOON = datetime(2026, 5, 4, 12, 0, 0)


def text(unit: str, expression: str = "") -> str:
    return f"module {unit}(input a, b, output y); assign y = {expression or RIGHT[unit]}; endmodule\n"


def packed(files: dict[str, str], at: datetime = NOON) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for path, content in files.items():
            archive.writestr(zipfile.ZipInfo(path, at.timetuple()[:6]), content)
    return out.getvalue()


class Evening:
    """A class of its own with a lab of three tasks."""

    def __init__(self, ta: Client, due: datetime | None = None) -> None:
        self.ta = ta
        self.class_id = ta.send("POST", "/classes", {"name": "Evening", "school": "x"})["id"]
        self.domain = f"x{self.class_id}.example"  # the mailbox is that of all tests
        files = {"file": ("list.csv", LIST.replace("x.example", self.domain).encode())}
        answer = ta.http.post(f"/api/classes/{self.class_id}/roster", files=files, headers=ta.headers)
        assert answer.status_code == 200, answer.text
        made = ta.send("POST", f"/classes/{self.class_id}/labs", {"title": "Three", "due_at": None})
        self.lab: int = made["id"]
        for _ in (1, 2):
            ta.send("POST", f"/labs/{self.lab}/tasks", {"title": "more"})
        self.tasks: dict[str, int] = {}
        for unit, task in zip(RIGHT, ta.get(f"/labs/{self.lab}")["tasks"], strict=True):
            self.tasks[unit] = task["id"]
            ta.send("PUT", f"/tasks/{task['id']}/spec", {"text": SPEC.format(unit=unit, right=RIGHT[unit])})
        if due is not None:
            self.terms(due)
        self.students = {s["number"]: s["id"] for s in ta.get(f"/classes/{self.class_id}/students")}

    def terms(self, due: datetime, **more: object) -> int:
        body = {"title": "Three", "due_at": due.isoformat() + "Z", "late_share": 0.1, **more}
        return int(self.ta.send("PUT", f"/labs/{self.lab}/terms", body)["marks"])

    def drop(self, files: dict[str, str], unit: str | None = None, at: datetime = NOON) -> dict[str, Any]:
        where = f"/tasks/{self.tasks[unit]}" if unit else f"/labs/{self.lab}"
        body = {"file": ("export.zip", packed(files, at))}
        answer = self.ta.http.post(f"/api{where}/drops", files=body, headers=self.ta.headers)
        assert answer.status_code == 200, answer.text
        self.ta.check(self.lab)
        return dict(answer.json())

    def confirm(self, came: dict[str, Any], times: str = "archive", **more: object) -> None:
        body = {"times": times, "zone": "UTC", **more}
        self.ta.send("PUT", f"/drops/{came['drop_id']}/times", body)

    def entries(self) -> list[dict[str, Any]]:
        return list(self.ta.get(f"/labs/{self.lab}/intake")["entries"])

    def entry(self, who: str) -> dict[str, Any]:
        return next(e for e in self.entries() if who in (e["who"], e["label"], e["number"]))

    def kinds(self, unit: str) -> dict[str, str]:
        clusters = self.ta.get(f"/tasks/{self.tasks[unit]}/results")["clusters"]
        return {m["name"]: c["kind"] for c in clusters for m in c["members"]}

    def missing(self, unit: str) -> set[str]:
        return set(self.ta.get(f"/tasks/{self.tasks[unit]}/results")["missing"])

    def feedback(self, number: str) -> dict[str, Any]:
        rows = self.ta.get(f"/labs/{self.lab}/feedback")["students"]
        return dict(next(s for s in rows if s["number"] == number))

    def letter(self, number: str) -> dict[str, Any]:
        return dict(self.ta.get(f"/labs/{self.lab}/letters/{self.students[number]}"))


@pytest.fixture
def evening(ta: Client) -> Evening:
    return Evening(ta)


def test_a_drop_on_a_task_counts_for_that_task_alone(evening: Evening) -> None:
    evening.drop({"Dahl_Olaf_7003/one.v": text("one")}, "one")
    evening.drop({"Dahl_Olaf_7003/two.v": text("two", "a & b"), "7006/two.v": text("two")}, "two")
    assert evening.kinds("one") == {"Olaf Dahl": "right"}
    assert evening.kinds("two") == {"Olaf Dahl": "wrong", "Rui Costa": "right"}
    assert evening.kinds("three") == {} and "Olaf Dahl" in evening.missing("three")
    heads = {t["title"]: t for t in evening.ta.get(f"/labs/{evening.lab}")["tasks"]}
    assert (heads["three"]["wrong"], heads["three"]["unchecked"], heads["one"]["unchecked"]) == (0, 0, 0)
    # a second attempt for one task: the other keeps its first
    evening.drop({"Dahl_Olaf_7003/two.v": text("two")}, "two")
    assert evening.kinds("two")["Olaf Dahl"] == "right" and evening.kinds("one")["Olaf Dahl"] == "right"
    review = evening.ta.get(f"/tasks/{evening.tasks['two']}/review/{evening.entry('7003')['handin_id']}")
    assert (review["attempt"], review["attempts"]) == (2, 2)
    first = evening.ta.get(f"/tasks/{evening.tasks['one']}/review/{evening.entry('7003')['handin_id']}")
    assert (first["attempt"], first["attempts"]) == (1, 1)
    row = evening.feedback("7003")
    assert row["marks"][:2] == [10, 10] and row["marks"][2] is None and row["held"] == [False, False, False]
    letter = evening.letter("7003")
    assert letter["attempt"] == 0 and [t["attempt"] for t in letter["tasks"]] == [1, 2, 0]
    assert letter["tasks"][2]["held"] == "nothing was handed in"


def test_a_drop_on_the_lab_counts_for_the_tasks_whose_unit_it_holds(evening: Evening) -> None:
    evening.drop({"7003/one.v": text("one"), "7003/two.v": text("two"), "7006/note.v": "// nothing yet\n"})
    assert evening.kinds("one") == {"Olaf Dahl": "right"} and evening.kinds("three") == {}
    evening.drop({"7003/two.v": text("two", "a")})  # only the second task: the first keeps what it had
    assert evening.kinds("one") == {"Olaf Dahl": "right"} and evening.kinds("two") == {"Olaf Dahl": "wrong"}
    nothing = evening.entry("7006")
    assert nothing["for_none"] and not nothing["settled"] and nothing["tasks"] == []
    attempt = nothing["attempts"][0]["id"]
    evening.ta.send("PUT", f"/attempts/{attempt}/task", {"task_id": evening.tasks["one"]})
    assert evening.kinds("one")["Rui Costa"] == "unchecked" and "Rui Costa" in evening.missing("two")
    evening.ta.send("PUT", f"/attempts/{attempt}/task", {"task_id": 999_999}, status=422)


def test_a_misnamed_unit_is_asked_about(evening: Evening) -> None:
    evening.drop({"7003/one.v": text("one"), "7003/rest.v": text("two").replace("two", "second")})
    entry = evening.entry("7003")
    asked = {t["task_id"]: t["leftover"] for t in entry["tasks"] if t["leftover"]}
    assert asked == {evening.tasks["two"]: ["second"], evening.tasks["three"]: ["second"]} and not entry["settled"]
    path = f"/handins/{entry['handin_id']}/tasks/{evening.tasks['two']}/choice"
    evening.ta.send("PUT", path, {"ours": "two", "theirs": "second"})
    evening.ta.check(evening.lab)
    assert evening.kinds("two") == {"Olaf Dahl": "right"}


def test_namesakes_are_asked_told_apart_and_remembered(evening: Evening) -> None:
    evening.drop({"Ada Berg_551201_x/one.v": text("one"), "Ada Berg_551202_x/one.v": text("one", "a")}, "one")
    entries = [e for e in evening.entries() if e["label"].startswith("Ada")]
    assert len(entries) == 2 and all("2 students are called Ada Berg" in e["doubt"] for e in entries)
    assert all(len(e["proposals"]) == 2 and not e["is_team"] for e in entries)
    for entry, number in zip(sorted(entries, key=lambda e: str(e["label"])), ("7001", "7002"), strict=True):
        path = f"/handins/{entry['handin_id']}/owner"
        evening.ta.send("PUT", path, {"student_ids": [evening.students[number]]})
    assert evening.kinds("one") == {"Ada Berg 7001": "right", "Ada Berg 7002": "wrong"}
    # the platform's numbers say who is who from now on; the bare name still does not
    evening.drop({"Ada Berg_551202_x/two.v": text("two"), "Ada Berg/two.v": text("two", "b")}, "two")
    assert evening.kinds("two")["Ada Berg 7002"] == "right"
    assert next(e for e in evening.entries() if e["label"] == "Ada Berg")["doubt"]


def test_a_number_of_one_beside_the_name_of_another(evening: Evening) -> None:
    evening.drop({"Olaf Dahl 7006/one.v": text("one"), "7001/one.v": text("one"), "7002/one.v": text("one")})
    entry = evening.entry("Olaf Dahl 7006")
    assert {p["number"] for p in entry["proposals"]} == {"7003", "7006"} and "7006 is the number" in entry["doubt"]


def test_teams_are_those_of_the_list(evening: Evening) -> None:
    evening.drop({"Sunna Brekke/one.v": text("one"), "Dahl Costa/one.v": text("one", "a")})
    team = evening.entry("Sunna Brekke and Eske Holm")
    assert team["team"]
    asked = evening.entry("Dahl Costa")
    assert asked["is_team"] and not asked["who"]
    assert evening.feedback("7005")["handin_id"] == team["handin_id"]


def test_put_aside_taken_back_split_and_given_to_somebody_else(evening: Evening) -> None:
    evening.drop({"7003/one.v": text("one")}, "one")
    evening.drop({"7003/one.v": text("one", "a")}, "one")
    entry = evening.entry("7003")
    evening.ta.send("PUT", f"/handins/{entry['handin_id']}/aside", {"reason": " "}, status=422)
    evening.ta.send("PUT", f"/handins/{entry['handin_id']}/aside", {"reason": "my own test"})
    assert evening.kinds("one") == {} and evening.entry("7003")["aside"] == "my own test"
    assert "Olaf Dahl" in evening.missing("one")
    evening.ta.send("PUT", f"/handins/{entry['handin_id']}/aside", {"reason": None})
    second = entry["attempts"][1]["id"]
    evening.ta.send("PUT", f"/attempts/{second}/owner", {"student_ids": [evening.students["7006"]]})
    assert evening.kinds("one") == {"Olaf Dahl": "right", "Rui Costa": "wrong"}
    assert (evening.feedback("7003")["marks"][0], evening.feedback("7006")["marks"][0]) == (10, 7.5)
    other = evening.entry("7006")["attempts"][0]["id"]
    evening.ta.send("PUT", f"/attempts/{other}/owner", {"student_ids": []})
    assert evening.kinds("one")["Olaf Dahl"] == "right" and "Rui Costa" not in evening.kinds("one")


def test_times_are_proposed_and_nobody_is_late_before_they_are_confirmed(ta: Client) -> None:
    evening = Evening(ta, due=NOON - timedelta(hours=1))
    came = evening.drop({"7003/one.v": text("one")}, "one", at=NOON)
    (drop,) = evening.ta.get(f"/labs/{evening.lab}/intake")["drops"]
    assert not drop["is_confirmed"] and drop["first"] == drop["last"] == NOON.isoformat()
    assert not evening.entry("7003")["attempts"][0]["late"] and evening.feedback("7003")["marks"][0] == 10
    ta.send("PUT", f"/drops/{came['drop_id']}/times", {"times": "archive", "zone": "No/Where"}, status=422)
    evening.confirm(came)
    assert evening.entry("7003")["attempts"][0]["late"] and evening.feedback("7003")["marks"][0] == 9
    ta.send("PUT", f"/drops/{came['drop_id']}/times", {"times": "archive", "zone": "Europe/Berlin"})  # 10:00 in UTC
    assert evening.feedback("7003")["marks"][0] == 10
    evening.confirm(came, "given", at=(NOON + timedelta(days=2)).isoformat() + "Z")
    assert evening.feedback("7003")["marks"][0] == 9
    attempt = evening.entry("7003")["attempts"][0]["id"]
    ta.send("PUT", f"/attempts/{attempt}/received", {"at": (NOON - timedelta(hours=2)).isoformat() + "Z"})
    assert evening.feedback("7003")["marks"][0] == 10
    evening.confirm(came)  # what was said of one hand-in stands
    assert evening.feedback("7003")["marks"][0] == 10


def test_lateness_in_steps_with_grace_and_a_cap(ta: Client) -> None:
    due = NOON - timedelta(hours=50)
    evening = Evening(ta, due=due)
    evening.confirm(evening.drop({"7003/one.v": text("one")}, "one"))
    for terms, mark, words in (
        ({"late_step": "once"}, 9, "50 hours late"), ({"late_step": "day"}, 7, "3 days begun: -3"),
        ({"late_step": "hour", "late_cap": 0.4}, 6, "at most 40 %"), ({"late_grace": 51 * 60}, 10, ""),
    ):  # fmt: skip
        evening.terms(due, **terms)
        assert evening.feedback("7003")["marks"][0] == mark
        said = evening.letter("7003")["tasks"][0]["late"]
        assert words in said or (words == "50 hours late" and "2 days late" in said)


def test_the_excused_are_neither_missing_nor_zero(evening: Evening) -> None:
    path = f"/labs/{evening.lab}/excused/{evening.students['7006']}"
    evening.ta.send("PUT", path, {"reason": "ill"})
    assert "Rui Costa" not in evening.missing("one")
    assert evening.feedback("7006")["excused"] == "ill" and evening.letter("7006")["excused"] == "ill"
    intake = evening.ta.get(f"/labs/{evening.lab}/intake")
    assert [e["name"] for e in intake["excused"]] == ["Rui Costa"]
    csv = evening.ta.http.get(f"/api/labs/{evening.lab}/marks.csv", headers=evening.ta.headers).text
    assert "excused: ill" in csv
    evening.ta.send("PUT", path, {"reason": None})
    assert "Rui Costa" in evening.missing("one")


def opened(ta: Client, address: str, subject: str) -> str:
    """The token of the newest mail to somebody."""
    for _ in range(100):
        mails = [m for m in ta.get("/mailbox") if m["to"] == address and subject in m["subject"]]
        if mails:
            found = re.search(r"/page/(\S+)", mails[0]["text"])
            assert found is not None
            return found[1]
        time.sleep(0.1)
    raise AssertionError(f"no mail to {address}")


def test_nothing_goes_out_unread_or_unchecked(evening: Evening, application: TestClient) -> None:
    ta = evening.ta
    evening.drop({"7003/one.v": text("one", "a"), "7006/one.v": text("one"), "stray/one.v": text("one")}, "one")
    plan = ta.get(f"/labs/{evening.lab}/release")
    assert {a["kind"] for a in plan["against"]} == {"unsettled", "comments", "address"}
    assert [r["name"] for r in plan["new"]] == ["Olaf Dahl", "Rui Costa"] and not plan["corrected"]
    assert ta.send("POST", f"/labs/{evening.lab}/release", {"student_ids": None})["letters"] == 2
    first = opened(ta, f"olaf@{evening.domain}", "Your feedback")
    student = TestClient(application.app)
    assert student.get(f"/api/page/{first}").json()["student"] == "Olaf Dahl"
    assert evening.feedback("7003")["letter"] == "released"  # to ask for the page is not to read
    assert student.post(f"/api/letter/{first}").json()["letter"]["mark"] is None
    assert evening.feedback("7003")["letter"] == "read"
    # the spec is corrected after the release: checked again at once, and the letter says that it corrects one
    ta.send("PUT", f"/tasks/{evening.tasks['one']}/spec", {"text": SPEC.format(unit="one", right="a")})
    ta.check(evening.lab)
    plan = ta.get(f"/labs/{evening.lab}/release")
    changed = {c["name"]: c["what"] for c in plan["corrected"]}
    assert changed.keys() == {"Olaf Dahl", "Rui Costa"} and "mark 7.5 becomes 10" in changed["Olaf Dahl"][0]
    ta.send("POST", f"/labs/{evening.lab}/release", {"student_ids": None})
    second = opened(ta, f"olaf@{evening.domain}", "Corrected feedback")
    assert second != first
    page = student.post(f"/api/letter/{first}").json()  # the old link leads to the newest, the older one below
    assert page["letter"]["corrects"] and page["letter"]["tasks"][0]["mark"] == 10
    assert [e["letter"]["tasks"][0]["mark"] for e in page["earlier"]] == [7.5]
    assert ta.get(f"/labs/{evening.lab}/release")["unchanged"] == 2


def test_a_letter_closes_when_the_hand_in_is_somebody_elses(evening: Evening, application: TestClient) -> None:
    ta = evening.ta
    evening.drop({"7003/one.v": text("one", "a")}, "one")
    ta.send("POST", f"/labs/{evening.lab}/release", {"student_ids": None})
    token = opened(ta, f"olaf@{evening.domain}", "Your feedback")
    student = TestClient(application.app)
    assert student.post(f"/api/letter/{token}").status_code == 200
    handin = evening.entry("7003")["handin_id"]
    ta.send("PUT", f"/handins/{handin}/owner", {"student_ids": [evening.students["7001"]]})
    assert student.get(f"/api/page/{token}").status_code == 404
    ta.send("POST", f"/labs/{evening.lab}/release", {"student_ids": None})
    assert student.get(f"/api/page/{token}").status_code == 404 == student.post(f"/api/letter/{token}").status_code
    assert evening.feedback("7003")["letter"] == "withdrawn" and evening.feedback("7001")["letter"] == "released"


def test_no_letter_on_a_version_that_was_not_checked(evening: Evening) -> None:
    ta = evening.ta
    evening.drop({"7003/one.v": text("one")}, "one")
    body = {"file": ("later.zip", packed({"7003/one.v": text("one", "b")}))}
    ta.http.post(f"/api/tasks/{evening.tasks['one']}/drops", files=body, headers=ta.headers)
    done = ta.send("POST", f"/labs/{evening.lab}/release", {"student_ids": [evening.students["7003"]]})
    assert (done["letters"], done["not_checked"]) == (0, 1)
    assert "not-checked" in {a["kind"] for a in ta.get(f"/labs/{evening.lab}/release")["against"]}


def test_a_time_that_nobody_vouches_for_decides_nothing(evening: Evening) -> None:
    """The first zip keeps the time of its upload until somebody says otherwise; the second was packed long before."""
    ta, lab = evening.ta, evening.lab
    first = evening.drop({"7003/one.v": text("one", "b")}, "one")
    second = evening.drop({"7003/one.v": text("one")}, "one", NOON + timedelta(hours=3))
    evening.confirm(second)
    for which, kind in (("last", "right"), ("first", "wrong"), ("best", "right")):
        ta.send("PUT", f"/labs/{lab}/terms", {"title": "Three", "due_at": None, "which_attempt": which})
        assert evening.kinds("one") == {"Olaf Dahl": kind}, which
    evening.confirm(first, "given", at=(NOON + timedelta(hours=5)).isoformat() + "Z")  # the first zip came later
    for which, kind in (("last", "wrong"), ("first", "right")):
        ta.send("PUT", f"/labs/{lab}/terms", {"title": "Three", "due_at": None, "which_attempt": which})
        assert evening.kinds("one") == {"Olaf Dahl": kind}, which


def test_two_people_at_once(evening: Evening) -> None:
    ta, task = evening.ta, evening.tasks["one"]
    spec = ta.get(f"/tasks/{task}/spec")
    mine, theirs = (SPEC.format(unit="one", right=right) for right in ("a", "b"))
    ta.send("PUT", f"/tasks/{task}/spec", {"text": theirs, "over": spec["digest"]})
    clash = ta.send("PUT", f"/tasks/{task}/spec", {"text": mine, "over": spec["digest"]}, status=409)
    assert clash["text"] == theirs
    terms = ta.get(f"/labs/{evening.lab}/terms")
    body = {"title": "Mine", "due_at": None, "over": terms["version"]}
    ta.send("PUT", f"/labs/{evening.lab}/terms", body)
    ta.send("PUT", f"/labs/{evening.lab}/terms", body | {"title": "Theirs"}, status=409)
    evening.drop({"7003/one.v": text("one")}, "one")
    handin = evening.entry("7003")["handin_id"]
    path = f"/handins/{handin}/tasks/{task}/mark"
    ta.send("PUT", path, {"value": 7, "reason": "mine", "over": 0})
    said = ta.send("PUT", path, {"value": 8, "reason": "theirs", "over": 0}, status=409)
    assert "7 (mine)" in said["detail"]
    ta.send("PUT", path, {"value": 11, "reason": "much", "over": 1}, status=422)
    ta.send("PUT", path, {"value": 11, "reason": "much", "over": 1, "beyond": True})
    ta.send("PUT", path, {"value": -1, "reason": "little"}, status=422)


def test_two_people_at_one_line_one_list_one_extension(evening: Evening) -> None:
    ta, lab, where = evening.ta, evening.lab, f"/classes/{evening.class_id}/students"
    line = next(s for s in ta.get(where) if s["number"] == "7003")
    mine = {"number": "7003", "name": "Olaf Dahl", "remarks": "mine", "over": line["version"]}
    files = {"file": ("l.csv", b"number,name\n7003,Olaf Dahl\n7009,Ny Ny\n")}
    preview = ta.http.post(f"/api/classes/{evening.class_id}/roster/preview", files=files, headers=ta.headers).json()
    ta.send("PUT", f"{where}/{line['id']}", mine)
    said = ta.send("PUT", f"{where}/{line['id']}", mine | {"remarks": "theirs"}, status=409)["detail"]
    assert "somebody else changed this line meanwhile (7003, Olaf Dahl" in said
    late = ta.http.post(f"/api/classes/{evening.class_id}/roster", files=files, headers=ta.headers,
                        data={"over": preview["version"]})  # fmt: skip
    assert late.status_code == 409 and "changed the class list" in late.json()["detail"]
    again = next(s for s in ta.get(where) if s["number"] == "7003")
    assert again["remarks"] == "mine" and len(ta.get(where)) == 6
    ta.send("PUT", f"{where}/{line['id']}", mine | {"remarks": "both", "over": again["version"]})
    more, first, second = f"/labs/{lab}/extensions/{line['id']}", "2030-01-01T10:00:00Z", "2031-01-01T10:00:00Z"
    ta.send("PUT", more, {"due_at": first, "over": None})
    ta.send("PUT", more, {"due_at": second, "over": None}, status=409)
    ta.send("PUT", more, {"due_at": None, "over": second}, status=409)
    assert [e["due_at"] for e in ta.get(f"/labs/{lab}/terms")["extensions"]] == ["2030-01-01T10:00:00"]
    ta.send("PUT", more, {"due_at": None, "over": first})
    assert ta.get(f"/labs/{lab}/terms")["extensions"] == []


def test_two_people_at_one_drop_one_excuse_one_role(evening: Evening) -> None:
    ta, lab = evening.ta, evening.lab
    came = evening.drop({"7003/one.v": text("one")}, "one")
    seen = ta.get(f"/labs/{lab}/intake")["drops"][0]["version"]
    where, given = f"/drops/{came['drop_id']}/times", {"times": "given", "at": "2026-05-04T10:00:00Z", "over": seen}
    ta.send("PUT", where, given)
    ta.send("PUT", where, given | {"at": "2026-05-05T10:00:00Z"}, status=409)
    again = ta.get(f"/labs/{lab}/intake")["drops"][0]["version"]
    assert again != seen and evening.entry("7003")["attempts"][0]["received_at"] == "2026-05-04T10:00:00"
    ta.send("PUT", where, given | {"at": "2026-05-05T10:00:00Z", "over": again})  # given again, at another time
    ta.send("PUT", where, given | {"over": again}, status=409)
    excuse = f"/labs/{lab}/excused/{evening.students['7006']}"
    ta.send("PUT", excuse, {"reason": "ill", "over": None})
    ta.send("PUT", excuse, {"reason": "abroad", "over": None}, status=409)
    ta.send("PUT", excuse, {"reason": None, "over": "abroad"}, status=409)
    assert [e["reason"] for e in ta.get(f"/labs/{lab}/terms")["excused"]] == ["ill"]
    ta.send("PUT", excuse, {"reason": None, "over": "ill"})
    people = f"/classes/{evening.class_id}/people"
    who = {"email": f"new@{evening.domain}", "name": "New One", "role": "ta", "over": None}
    ta.send("POST", people, who)
    ta.send("POST", people, who | {"role": "reader"}, status=409)
    ta.send("POST", people, who | {"role": "reader", "over": "ta"})
    assert {p["email"]: p["role"] for p in ta.get(people)}[who["email"]] == "reader"


def test_everybody_and_their_hand_in(evening: Evening) -> None:
    evening.drop({"Sunna Brekke/one.v": text("one"), "7003/one.v": text("one")})
    who = {w["number"]: w for w in evening.ta.get(f"/labs/{evening.lab}/who")}
    assert who["7004"]["handin_id"] == who["7005"]["handin_id"] is not None
    assert who["7003"]["group"] == "A" and who["7001"]["handin_id"] is None


def test_bad_drops_are_told_and_lose_nothing(evening: Evening) -> None:
    many = evening.drop({f"7003 try{i}/one{i}.v": text("one").replace("one", f"one{i}") for i in range(20)})
    assert "20 hand-ins go by the name of Olaf Dahl" in many["notes"][0]
    foreign = evening.drop({f"somebody{i}/one.v": text("one", f"a ^ {i}") for i in range(6)})
    assert "only 0 of 6 names are of this class" in foreign["notes"][0]
    export = io.BytesIO()
    with zipfile.ZipFile(export, "w") as archive:
        archive.writestr("task one.zip", packed({f"{n}/one.v": text("one") for n in ("7001", "7002", "7006")}))
        archive.writestr("about.txt", "x")
    answer = evening.ta.http.post(
        f"/api/labs/{evening.lab}/drops", files={"file": ("all.zip", export.getvalue())}, headers=evening.ta.headers
    )
    assert answer.status_code == 200
    assert "it holds hand-ins of 3 students: drop it by itself" in evening.entry("task one")["doubt"]
    evening.drop({"7006/report.pdf": "%PDF-1.7 no source"}, "one")
    assert evening.kinds("one")["Rui Costa"] == "unchecked"


def test_the_class_list_is_seen_before_it_is_kept(evening: Evening) -> None:
    ta = evening.ta
    new = "who,name,mail\n7001,Ada Berg,ada1@x.example\n7003,Olaf Dahlen,olaf@x.example\n7 003,Twice,\n7009,Ny Ny,no\n"

    def ask(path: str, **more: str) -> Any:
        answer = ta.http.post(f"/api/classes/{evening.class_id}{path}", files={"file": ("l.csv", new.encode())},
                              data=more, headers=ta.headers)  # fmt: skip
        assert answer.status_code == 200, answer.text
        return answer.json()

    columns = "number=0,name=1,email=2"
    seen = ask("/roster/preview", columns=columns)
    assert seen["new"] == ["Ny Ny 7009"] and {g["number"] for g in seen["gone"]} == {"7002", "7004", "7005", "7006"}
    assert any("name: Olaf Dahl becomes Olaf Dahlen" in w for c in seen["changed"] for w in c["what"])
    assert [(p["line"], p["is_left_out"]) for p in seen["problems"]] == [(4, True), (5, False)]
    assert len(ta.get(f"/classes/{evening.class_id}/students")) == 6  # nothing was kept
    taken = ask("/roster", columns=columns, gone_leave="true")
    assert (taken["rows"], taken["new"], taken["left"]) == (3, 1, 4)
    lines = {s["number"]: s for s in ta.get(f"/classes/{evening.class_id}/students")}
    assert lines["7003"]["name"] == "Olaf Dahlen" and lines["7006"]["left_at"] and not lines["7001"]["left_at"]
    entry = {"number": "7006", "name": "Rui Costa", "email": "", "group": "A", "is_out": False}
    ta.send("PUT", f"/classes/{evening.class_id}/students/{lines['7006']['id']}", entry)
    assert ta.get(f"/classes/{evening.class_id}/students")[-1]["number"] != "7006"
    ta.send("POST", f"/classes/{evening.class_id}/students", {"number": "70 06", "name": "X"}, status=409)
    ta.send("POST", f"/classes/{evening.class_id}/students", {"number": "8", "name": "X", "email": "x"}, status=422)
    assert ta.send("POST", f"/classes/{evening.class_id}/students", {"number": "8", "name": "X"})["id"]


def test_one_group_alone(evening: Evening) -> None:
    evening.drop({"7003/one.v": text("one"), "Sunna Brekke/one.v": text("one", "a"), "7006/one.v": text("one", "b")})
    ta, lab = evening.ta, evening.lab
    tasks = {g: ta.get(f"/labs/{lab}/report?group={g}")["tasks"][0] for g in ("A", "B")}
    assert [(t["right"], t["wrong"], t["missing"]) for t in tasks.values()] == [(1, 1, 1), (0, 1, 1)]
    whole = ta.get(f"/labs/{lab}/report")["tasks"][0]
    assert (whole["right"], whole["wrong"], whole["missing"]) == (1, 2, 2)  # the two of a team are not missing
    csv = ta.http.get(f"/api/labs/{lab}/marks.csv?group=B", headers=ta.headers).text
    assert "7002" in csv and "7003" not in csv


def test_when_over_half_fail_one_case_of_a_new_version_the_spec_is_doubted(evening: Evening) -> None:
    ta, task = evening.ta, evening.tasks["one"]
    evening.drop({f"{n}/one.v": text("one") for n in ("7001", "7002", "7003", "7006")}, "one")
    assert ta.get(f"/tasks/{task}/results")["doubtful"] == ""
    ta.send("PUT", f"/tasks/{task}/spec", {"text": SPEC.format(unit="one", right="a")})
    ta.check(evening.lab)
    assert ta.get(f"/tasks/{task}/results")["doubtful"] == "4 of 4 fail the same case, 1 0"


@pytest.mark.parametrize(
    ("comment", "said"),
    [
        ("Hello {name}. Look at {line}. See me.", "Hello A. See me."),
        ("Version 3.5 of {line} it is! Well.", "Well."),
        ("First {when}\nsecond {name}", "second A"),
        ("[Maybe {line}.] Then {name}?", "Then A?"),
        ("{name}", "A"), ("no point {line}", ""),
    ],
)  # fmt: skip
def test_a_placeholder_without_value_drops_its_sentence(comment: str, said: str) -> None:
    assert fill(comment, {"name": "A"}) == said


def test_what_is_taken_away_comes_back(evening: Evening) -> None:
    ta, lab = evening.ta, evening.lab
    came = evening.drop({"7003/one.v": text("one"), "7006/one.v": text("one", "a")}, "one")
    assert ta.get(f"/hanging/drop/{came['drop_id']}")["handins"] == 2 == ta.get(f"/hanging/lab/{lab}")["handins"]
    ta.send("DELETE", f"/drops/{came['drop_id']}")
    assert evening.entries() == [] and evening.kinds("one") == {} and "Olaf Dahl" in evening.missing("one")
    back = {"class_id": evening.class_id}
    ta.send("POST", f"/classes/{evening.class_id}/bin", back | {"kind": "drop", "id": came["drop_id"]})
    assert evening.kinds("one") == {"Olaf Dahl": "right", "Rui Costa": "wrong"}
    task = evening.tasks["three"]
    ta.send("DELETE", f"/tasks/{task}")
    ta.get(f"/tasks/{task}/results", status=404)
    assert len(ta.get(f"/labs/{lab}")["tasks"]) == 2
    ta.send("DELETE", f"/labs/{lab}")
    ta.get(f"/labs/{lab}", status=404)
    gone = {(g["kind"], g["id"]) for g in ta.get("/bin")}
    assert ("lab", lab) in gone and ("task", task) not in gone  # it comes back with its lab
    ta.send("POST", f"/classes/{evening.class_id}/bin", back | {"kind": "lab", "id": 999_999}, status=404)
    ta.send("POST", f"/classes/{evening.class_id}/bin", back | {"kind": "lab", "id": lab})
    ta.send("POST", f"/classes/{evening.class_id}/bin", back | {"kind": "task", "id": task})
    assert len(ta.get(f"/labs/{lab}")["tasks"]) == 3 and evening.kinds("one")["Olaf Dahl"] == "right"


def test_after_thirty_days_it_is_gone_for_good(evening: Evening) -> None:
    ta, lab = evening.ta, evening.lab
    evening.drop({"7003/one.v": text("one", "a")}, "one")
    cluster = ta.get(f"/tasks/{evening.tasks['one']}/results")["clusters"][0]["key"]
    ta.send("PUT", f"/tasks/{evening.tasks['one']}/comments/{cluster}", {"text": "x", "version": 0})
    ta.send("POST", f"/labs/{lab}/release", {"student_ids": None})
    ta.send("DELETE", f"/classes/{evening.class_id}")
    assert evening.class_id not in {k["id"] for k in ta.get("/home")}
    store: Store = ta.http.app.state.services.store  # type: ignore[attr-defined]
    with store.transaction() as c:
        assert trash.purge(c) == 0
        c.run("UPDATE class SET gone_at = gone_at - INTERVAL 31 DAY WHERE id = %s", evening.class_id)
        assert trash.purge(c) == 1
        for table, column in (("class", "id"), ("lab", "class_id"), ("student", "class_id")):
            assert c.value(f"SELECT COUNT(*) FROM {table} WHERE {column} = %s", evening.class_id) == 0
        assert c.value("SELECT COUNT(*) FROM handin WHERE lab_id = %s", lab) == 0


def test_once_more_for_the_next_year(evening: Evening) -> None:
    ta = evening.ta
    evening.drop({"7003/one.v": text("one", "a")}, "one")
    cluster = ta.get(f"/tasks/{evening.tasks['one']}/results")["clusters"][0]["key"]
    ta.send("PUT", f"/tasks/{evening.tasks['one']}/comments/{cluster}", {"text": "both inputs", "version": 0})
    made = ta.send("POST", f"/classes/{evening.class_id}/copy", {"name": "Next year"})["id"]
    card = next(k for k in ta.get("/home") if k["id"] == made)
    assert (card["students"], [lab["title"] for lab in card["labs"]]) == (0, ["Three"])
    again = ta.get(f"/labs/{card['labs'][0]['id']}")
    assert [t["title"] for t in again["tasks"]] == ["one", "two", "three"] and again["handed_in"] == 0
    ta.send("POST", f"/classes/{made}/students", {"number": "1", "name": "New One"})
    copy = Evening.__new__(Evening)
    copy.ta, copy.lab, copy.tasks = ta, again["id"], {t["title"]: t["id"] for t in again["tasks"]}
    copy.drop({"1/one.v": text("one", "a")}, "one")
    task = copy.tasks["one"]
    (wrong,) = ta.get(f"/tasks/{task}/results")["clusters"]
    assert wrong["comment"] == ""  # what was said last year goes into no letter by itself
    review = ta.get(f"/tasks/{task}/review/{wrong['members'][0]['handin_id']}")
    assert review["comment_before"] == {"text": "both inputs", "version": 1, "lab": "Three"}
    # the spec changes in one case: those who are wrong in the others as they were are met with the same words
    ta.send("PUT", f"/tasks/{task}/spec", {"text": SPEC.format(unit="one", right="a & b | !a & !b")})
    copy.drop({"1/one.v": text("one", "a | !b")}, "one")
    ta.check(copy.lab)
    (wrong,) = ta.get(f"/tasks/{task}/results")["clusters"]
    review = ta.get(f"/tasks/{task}/review/{wrong['members'][0]['handin_id']}")
    assert wrong["key"] != cluster and review["comment_before"]["text"] == "both inputs"
    ta.send("PUT", f"/tasks/{task}/comments/{wrong['key']}", {"text": "mine", "version": review["comment_version"]})
    (wrong,) = ta.get(f"/tasks/{task}/results")["clusters"]
    assert wrong["comment"] == "mine"


def test_old_versions_are_read_and_taken_up_again(evening: Evening) -> None:
    ta, task = evening.ta, evening.tasks["one"]
    evening.drop({"7003/one.v": text("one")}, "one")
    first = ta.get(f"/tasks/{task}/spec")["text"]
    ta.send("PUT", f"/tasks/{task}/spec", {"text": SPEC.format(unit="one", right="a")})
    ta.check(evening.lab)
    versions = ta.get(f"/tasks/{task}/spec/versions")
    assert [(v["number"], v["used"], v["who"]) for v in versions] == [
        (2, True, "Mira Solberg"),
        (1, True, "Mira Solberg"),
    ]
    assert ta.get(f"/tasks/{task}/spec/versions/1")["text"] == first
    ta.get(f"/tasks/{task}/spec/versions/9", status=404)
    where = f"/tasks/{task}/spec/versions/1/cases"
    body = {"text": ta.get(f"/tasks/{task}/spec")["text"]}
    assert ta.send("POST", where, body) == {
        "shared": 4, "only_then": 0, "only_now": 0, "more": 0,
        "changed": [{"label": "1 0", "outputs": [{"name": "y", "was": "0", "now": "1"}]}],
    }  # fmt: skip
    assert ta.send("POST", where, {"text": first})["changed"] == []
    assert "has errors" in ta.send("POST", where, {"text": "nonsense"}, status=409)["detail"]
    ta.send("POST", f"/tasks/{task}/spec/versions/9/cases", body, status=404)


def test_an_erased_person_is_named_nowhere(evening: Evening) -> None:
    ta = evening.ta
    files = {"Sunna Brekke/one.v": text("one", "a"), "7003/one.v": text("one"), "../7003 Olaf Dahl.v": "x"}
    evening.drop(files, "one")
    ta.drop(evening.lab, "Sunna Brekke again.v", text("one", "b").encode())
    ta.check(evening.lab)
    ta.send("POST", f"/labs/{evening.lab}/release", {"student_ids": None})
    opened(ta, f"sunna@{evening.domain}", "feedback")
    opened(ta, f"olaf@{evening.domain}", "feedback")
    for number, handins, mails in (("7004", 0, 1), ("7003", 1, 1)):
        done = ta.send("DELETE", f"/classes/{evening.class_id}/students/{evening.students[number]}")
        assert (done["handins"], done["letters"], done["mails"]) == (handins, 1, mails) and done["places"] >= 1
    store: Store = ta.http.app.state.services.store  # type: ignore[attr-defined]
    with store.transaction() as c:
        tables = [str(next(iter(r.values()))) for r in c.rows("SHOW TABLES")]
        for table in tables:
            stands = str(c.rows(f"SELECT * FROM `{table}`")) if table != "planes" else ""
            for address in (f"sunna@{evening.domain}", f"olaf@{evening.domain}"):
                assert address not in stands, table
        mine = c.rows("SELECT * FROM student WHERE class_id = %s", evening.class_id)
        teams = c.rows("SELECT name FROM team WHERE lab_id = %s", evening.lab)
        came = c.rows(
            "SELECT a.label, h.label AS of FROM attempt a JOIN handin h ON h.id = a.handin_id WHERE h.lab_id = %s",
            evening.lab,
        )
        said = c.rows("SELECT frozen FROM letter WHERE lab_id = %s", evening.lab)
        dropped = c.rows("SELECT name, left_out FROM intake_drop WHERE lab_id = %s", evening.lab)
    for rows in (mine, teams, came, said, dropped):
        assert "Sunna" not in str(rows) and "Olaf Dahl" not in str(rows)
    assert not [m for m in ta.get("/mailbox") if evening.domain in m["to"] and m["to"].startswith(("sunna", "olaf"))]
    assert evening.feedback("7005")["handin_id"]  # what the team handed in stays


def test_the_sums_of_a_report_stay_when_somebody_is_erased(evening: Evening) -> None:
    ta = evening.ta
    files = {"7003/one.v": text("one", "b"), "7005/one.v": text("one", "b "), "7006/one.v": text("one", "a")}
    evening.drop(files, "one")
    ta.check(evening.lab)
    before = ta.get(f"/labs/{evening.lab}/report")
    one = before["tasks"][0]
    assert one["right"] + one["wrong"] == 3 and one["missing"] > 0 and one["hardest"][0]["failed"] == 2
    for number in ("7003", "7006", "7004"):  # wrong, right, nothing handed in
        ta.send("DELETE", f"/classes/{evening.class_id}/students/{evening.students[number]}")
    assert ta.get(f"/labs/{evening.lab}/report") == before
    assert {s["number"] for s in ta.get(f"/labs/{evening.lab}/feedback")["students"]}.isdisjoint(
        {"7003", "7006", "7004"}
    )
    settings = ta.http.app.state.services.settings  # type: ignore[attr-defined]
    with ta.http.app.state.services.store.transaction() as c:  # type: ignore[attr-defined]
        known = erasures(c)
    assert settings.erased.students(known.since) >= {evening.students[n] for n in ("7003", "7004", "7006")}


def test_a_comment_comes_back_as_a_proposal_under_a_new_version(evening: Evening) -> None:
    ta, task = evening.ta, evening.tasks["one"]
    evening.drop({"7003/one.v": text("one", "b"), "7006/one.v": text("one", "b ")}, "one")
    cluster = ta.get(f"/tasks/{task}/results")["clusters"][0]["key"]
    ta.send("PUT", f"/tasks/{task}/comments/{cluster}", {"text": "a matters, too", "version": 0})
    ta.send("PUT", f"/tasks/{task}/spec", {"text": SPEC.format(unit="one", right="a & !b")})
    ta.check(evening.lab)
    review = ta.get(f"/tasks/{task}/review/{evening.entry('7003')['handin_id']}")
    assert review["comment"] == "" and review["comment_before"] == {"text": "a matters, too", "version": 1, "lab": ""}
    assert evening.letter("7003")["tasks"][0]["comment"] == ""


def test_a_list_says_nothing_of_columns_it_has_not(evening: Evening) -> None:
    ta, where = evening.ta, f"/api/classes/{evening.class_id}/roster"
    files = {"file": ("short.csv", b"number,name\n7001,Ada Bergen\n7002,Ada Berg\n")}
    seen = ta.http.post(f"{where}/preview", files=files, headers=ta.headers).json()
    assert [c["what"] for c in seen["changed"]] == [["name: Ada Berg becomes Ada Bergen"]] and seen["same"] == 1
    assert ta.http.post(where, files=files, headers=ta.headers).status_code == 200
    ada = next(s for s in ta.get(f"/classes/{evening.class_id}/students") if s["number"] == "7001")
    assert (ada["name"], ada["group"], ada["email"]) == ("Ada Bergen", "A", f"ada1@{evening.domain}")


def test_what_was_said_of_two_hand_ins_stays_when_they_become_one(evening: Evening) -> None:
    ta, task = evening.ta, evening.tasks["one"]
    evening.drop({"7003/one.v": text("one", "a"), "stray/one.v": text("one", "b")}, "one")
    mine, stray = evening.entry("7003")["handin_id"], evening.entry("stray")["handin_id"]
    for handin, said in ((mine, "of the first"), (stray, "of the second")):
        body = {"text": said, "version": 0, "handin_id": handin}
        ta.send("PUT", f"/tasks/{task}/comments/-", body)
    ta.send("PUT", f"/handins/{stray}/owner", {"student_ids": [evening.students["7003"]]})
    note = ta.get(f"/tasks/{task}/review/{mine}")["note"]
    assert note == "of the first\nof the second"


def test_what_comes_while_a_check_goes_on_is_checked_after_it(evening: Evening) -> None:
    ta, task = evening.ta, evening.tasks["one"]
    slow = "module one(input a, b, output reg y); integer i; always @* begin y = 0; for (i = 0; i < 4000; i = i + 1)"
    body = {"file": ("c.zip", packed({f"{n}/one.v": f"{slow} y = a & b; end endmodule" for n in ("7003", "7006")}))}
    ta.http.post(f"/api/tasks/{task}/drops", files=body, headers=ta.headers)
    ta.send("POST", f"/labs/{evening.lab}/check")
    ta.send("PUT", f"/tasks/{task}/spec", {"text": SPEC.format(unit="one", right="a")})  # while that goes on, or after
    for _ in range(200):
        results = ta.get(f"/tasks/{task}/results")
        if results["version"] == 2 and not results["waiting"]:
            break
        time.sleep(0.1)
    assert (results["version"], results["waiting"]) == (2, 0)
