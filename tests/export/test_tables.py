"""CSV, workbooks, JUnit-style XML and TAP: what other programs read out of them, hostile names included."""

from __future__ import annotations

import csv
import io
import json
import xml.etree.ElementTree as ElementTree

import pytest
from openpyxl import load_workbook

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile
from obento.export.result_files import CsvResult, JsonResult, JunitResult, ResultFile, TapResult
from obento.export.tables import neutral, rows_to_csv
from obento.export.workbook import rows_to_xlsx
from tests.sluice import SPEC

RIGHT = "module sluice(input high, wide, output warn); assign warn = high & ~wide; endmodule"
WRONG = RIGHT.replace("&", "|")
HOSTILE = '=cmd|"a" #<&>\n\x01'


@pytest.fixture(scope="module")
def checked() -> tuple[Expectation, list[tuple[str, Checked]]]:
    loaded = open_spec("s.toml", SPEC.encode(), {})
    assert loaded.expectation is not None
    texts = {"right": RIGHT, HOSTILE: WRONG, "broken": "module sluice("}
    return loaded.expectation, [
        (name, check_handin(loaded.expectation, [HandinFile("a.v", text.encode())])) for name, text in texts.items()
    ]


def whole(form: ResultFile, outcomes: list[tuple[str, Checked]]) -> str:
    """A result file as it is written."""
    parts = [form.part(name, outcome) for name, outcome in outcomes]
    return form.head + form.between.join(parts) + form.tail


def test_cells_that_a_spreadsheet_would_run_are_made_harmless() -> None:
    assert [neutral(x) for x in ("=1+1", "+cmd", "-2", "@x", "\tx", "plain", None)] == [
        "'=1+1",
        "'+cmd",
        "-2",
        "'@x",
        "'\tx",
        "plain",
        "",
    ]


@pytest.mark.parametrize("text", ["=1", "+1a", "@a", "-a", "\tx", "\r=1", "=", "--1"])
def test_no_cell_begins_as_a_formula(text: str) -> None:
    assert neutral(text) == "'" + text


@pytest.mark.parametrize("text", ["-1", "+1.5", "1", "0", "a=1", "", "07"])
def test_numbers_and_words_stay(text: str) -> None:
    assert neutral(text) == text


def test_a_csv_reads_back() -> None:
    text = rows_to_csv(["a", "=b"], [["x,y", 'q"q'], ["two\nlines", None], [1.5, -2]])
    assert list(csv.reader(io.StringIO(text))) == [["a", "'=b"], ["x,y", 'q"q'], ["two\nlines", ""], ["1.5", "-2"]]


def test_a_workbook_reads_back_with_numbers_as_numbers() -> None:
    data = rows_to_xlsx("Lab: 1/2 [x]?" * 4, ["name", "sum"], [["=1+1", 7], ["a\x01b", 2.5], ["", True]])
    sheet = load_workbook(io.BytesIO(data)).active
    assert sheet is not None
    assert [[c.value for c in row] for row in sheet.iter_rows()] == [
        ["name", "sum"],
        ["=1+1", 7],
        ["a?b", 2.5],
        [None, "True"],
    ]
    assert sheet["A2"].data_type == "s", "a text, whatever it begins with"
    assert len(sheet.title) <= 31 and not set(sheet.title) & set("[]:*?/\\")
    assert sheet.freeze_panes == "A2"


def test_results_as_csv(checked: tuple[Expectation, list[tuple[str, Checked]]]) -> None:
    expectation, outcomes = checked
    rows = list(csv.DictReader(io.StringIO(whole(CsvResult(expectation), outcomes))))
    assert [r["name"] for r in rows] == ["right", "'" + HOSTILE, "broken"]
    assert [r["status"] for r in rows] == ["checked", "checked", "unreadable"]
    assert rows[0]["verdict"] == "v1111" and rows[1]["cells"] == outcomes[1][1].verdict.cells()  # type: ignore[union-attr]
    assert rows[2]["messages"].startswith("a.v:1:")


@pytest.mark.parametrize(("shown", "listed"), [("all", 4), ("failing", 2), ("none", 0)])
def test_junit_counts_what_it_does_not_list(
    checked: tuple[Expectation, list[tuple[str, Checked]]], shown: str, listed: int
) -> None:
    expectation, outcomes = checked
    root = ElementTree.fromstring(whole(JunitResult(expectation, shown), outcomes))  # type: ignore[arg-type]
    right, wrong, broken = root.findall("testsuite")
    assert [s.get("failures") for s in (right, wrong, broken)] == ["0", "2", "0"]
    assert [s.get("errors") for s in (right, wrong, broken)] == ["0", "0", "1"]
    assert len(wrong.findall("testcase")) == listed
    assert len(wrong.findall("testcase/failure")) == min(listed, 2)
    assert wrong.get("name") == '=cmd|"a" #<&>\n?', "what XML cannot hold is replaced"
    assert broken.find("testcase/error") is not None


def test_tap_has_one_line_for_each_case(checked: tuple[Expectation, list[tuple[str, Checked]]]) -> None:
    expectation, outcomes = checked
    lines = whole(TapResult(expectation), outcomes).splitlines()
    assert lines[0] == "TAP version 13" and lines[-1] == "1..9"
    assert len(lines) == 2 + 9, "no name breaks a line"
    assert [line.split()[line.startswith("not") + 1] for line in lines[1:-1]] == [str(n) for n in range(1, 10)]
    assert sum(line.startswith("ok ") for line in lines) == 4 + 2
    assert lines[-2] == "not ok 9 - broken: unreadable"


@pytest.mark.parametrize(("shown", "listed"), [("all", 4), ("failing", 2), ("none", 0)])
def test_results_as_json(checked: tuple[Expectation, list[tuple[str, Checked]]], shown: str, listed: int) -> None:
    expectation, outcomes = checked
    data = json.loads(whole(JsonResult(expectation, shown), outcomes))  # type: ignore[arg-type]
    assert data["obento"] == "result/1" and data["spec"]["cases"] == 4
    right, wrong, broken = data["handins"]
    assert [h["name"] for h in data["handins"]] == ["right", HOSTILE, "broken"]
    assert len(wrong["cases"]) == listed and wrong["passed"] == 2 and right["verdict"] == "1111"
    assert broken["status"] == "unreadable" and broken["cells"] == "ssss" and broken["messages"][0]["line"] == 1
    assert all(not c["pass"] for c in wrong["cases"]) or shown == "all"


def test_no_hand_ins_are_a_whole_file_too(checked: tuple[Expectation, list[tuple[str, Checked]]]) -> None:
    expectation, _ = checked
    assert json.loads(whole(JsonResult(expectation, "all"), []))["handins"] == []
    assert len(ElementTree.fromstring(whole(JunitResult(expectation, "all"), []))) == 0
    assert whole(TapResult(expectation), []) == "TAP version 13\n1..0\n"
