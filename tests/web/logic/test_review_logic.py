"""What the review reckons (features/review): cases, views, remarks, the words for a change, words of the languages."""

from __future__ import annotations

from typing import Any

import pytest

from tests.web.logic.conftest import Logic


def rows(cells: str) -> list[dict[str, Any]]:
    return [{"index": i, "cell": c} for i, c in enumerate(cells)]


@pytest.mark.parametrize(
    ("now", "before", "wrong", "rest"),
    [
        ("pfun s".replace(" ", "p"), "pfunps", [1, 2, 5], [0, 3, 4]),
        ("pppp", "pfpp", [1], [0, 2, 3]),  # a case that a change turned right stays where it was
        ("fppp", "pfpp", [0, 1], [2, 3]),
        ("", "", [], []),
    ],
)
def test_failing_cases_stand_apart(logic: Logic, now: str, before: str, wrong: list[int], rest: list[int]) -> None:
    body = "const p = logic.reviewCases.parted(a[0], a[1]); return [p.wrong, p.rest].map((x) => x.map((r) => r.index))"
    assert logic.run(body, rows(now), rows(before)) == [wrong, rest]


SINCE = {"attempt": 1, "is_known": True, "status": "checked", "passed": 3, "turned_right": [], "turned_wrong": []}


@pytest.mark.parametrize(
    ("since", "said"),
    [
        (None, ""),
        (SINCE, "as attempt 1"),
        (SINCE | {"is_known": False}, "attempt 1 was not checked by this spec"),
        (SINCE | {"status": "unreadable"}, "attempt 1 could not be checked"),
        (SINCE | {"turned_right": [1, 2], "turned_wrong": [5]}, "since attempt 1: 2 right, 1 wrong"),
    ],
)
def test_a_second_attempt_is_compared_in_words(logic: Logic, since: object, said: str) -> None:
    assert logic.run("return logic.reviewCases.sinceText(a[0])", since) == said


def test_turned_cases_are_marked_by_which_way(logic: Logic) -> None:
    body = "return [...logic.reviewCases.turnedOf(a[0])].sort()"
    assert logic.run(body, {"turned_right": [2, 0], "turned_wrong": [1]}) == [[0, "right"], [1, "wrong"], [2, "right"]]
    assert logic.run(body, None) == []


VIEWS = [
    # clocked, status, language, output, views
    (False, "checked", "verilog", "", ["circuit", "source"]),
    (True, "checked", "vhdl", "", ["waves", "circuit", "source"]),
    (True, "checked", "verilog", "PASS", ["waves", "output", "source"]),
    (False, "checked", "verilog", "PASS", ["output", "source"]),
    (True, "checked", "vcd", "", ["source"]),
    (True, "unreadable", "verilog", "", ["source"]),
    (False, "stopped", "verilog", "printed before it was stopped", ["output", "source"]),
]


@pytest.mark.parametrize(("clocked", "status", "language", "output", "views"), VIEWS)
def test_only_what_there_is_can_be_looked_at(
    logic: Logic, clocked: bool, status: str, language: str, output: str, views: list[str]
) -> None:
    review = {"clocked": clocked, "status": status, "language": language, "output": output}
    assert logic.run("return logic.centre.viewsOf(a[0])", review) == views


def test_nothing_under_review_has_its_source_alone(logic: Logic) -> None:
    assert logic.run("return logic.centre.viewsOf(null)") == ["source"]


def test_a_circuit_is_drawn_only_when_asked_for(logic: Logic) -> None:
    body = """
    const review = logic.vue.ref({ clocked: false, status: 'checked', language: 'verilog', output: '' })
    const c = logic.centre.useCentre(review)
    const seen = [c.centre.value]
    c.chosenView.value = 'circuit'
    seen.push(c.centre.value)
    review.value = { clocked: false, status: 'unreadable', language: 'verilog', output: '' }
    seen.push(c.centre.value)
    return seen
    """
    assert logic.run(body) == ["source", "circuit", "source"]


def said(code: str, severity: str, text: str = "t") -> dict[str, Any]:
    return {"code": code, "severity": severity, "text": text, "line": 4, "hint": "do this"}


def test_each_message_is_said_at_one_place(logic: Logic) -> None:
    messages = [
        said("race", "warning"), said("race", "warning", "found"), said("power-up", "note"), said("left-out", "error"),
        said("other", "warning"), said("syntax", "error"),
    ]  # fmt: skip
    body = """
    const of = (status) => ({ messages: a[0], findings: ['found'], status })
    const said = (f) => ['checked', 'unreadable'].map((s) => logic.remarks[f](of(s)).length)
    return ['clockingOf', 'remarksOf', 'errorsOf'].flatMap(said)
    """
    assert logic.run(body, messages) == [1, 1, 1, 1, 0, 2]


def test_a_message_is_said_with_its_line(logic: Logic) -> None:
    m = said("x", "error", "no such thing")
    assert logic.run("return logic.remarks.located(a[0])", m) == "line 4: no such thing"
    assert logic.run("return logic.remarks.located(a[0], true)", m) == "line 4: no such thing (do this)"
    assert logic.run("return logic.remarks.located(a[0], true)", m | {"line": 0, "hint": ""}) == "no such thing"


CHANGES = [
    ("a\nb\nc", "a\nb\nc", ""),
    ("a\nb\nc", "a\nx\nc", 'line 2: "x" instead of "b"'),
    ("a\nb\nc", "a\nc", 'line 2: nothing instead of "b"'),
    ("a\nc", "a\nb\nc", 'line 2: "b" instead of nothing'),
    ("a\r\nb\r\n", "a\nb\n", ""),
    ("  assign y = a;\nz", "  assign y = b;\nz", 'line 1: "assign y = b;" instead of "assign y = a;"'),
    ("a\na\na", "a\na", 'line 3: nothing instead of "a"'),
    ("", "x", 'line 1: "x" instead of nothing'),
    ("a\nb\nc\nd", "a\nx\ny\nd", 'line 2: "x y" instead of "b c"'),
]


@pytest.mark.parametrize(("before", "after", "words"), CHANGES)
def test_a_change_is_quoted_in_words(logic: Logic, before: str, after: str, words: str) -> None:
    assert logic.run("return logic.scratch.changeText(a[0], a[1])", before, after) == words


PIECES = [
    ("a.v", "assign y = a; // end", [["assign", "word"], [" y = a; ", ""], ["// end", "comment"]]),
    ("a.v", 'x = "end";', [["x = ", ""], ['"end"', ""], [";", ""]]),
    (
        "a.vhd",
        "END process; -- if",
        [["END", "word"], [" ", ""], ["process", "word"], ["; ", ""], ["-- if", "comment"]],
    ),
    ("a.wiring", "t <- and(a, b)", [["t <- ", ""], ["and", "word"], ["(a, b)", ""]]),
    ("a.v", "endian", [["endian", ""]]),
    ("a.sv", "import p::*;", [["import", "word"], [" p::*;", ""]]),
    ("a.v", "import p::*;", [["import p::*;", ""]]),
    ("a.v", "", []),
]


@pytest.mark.parametrize(("path", "text", "pieces"), PIECES)
def test_words_and_comments_stand_out(logic: Logic, path: str, text: str, pieces: list[list[str]]) -> None:
    body = "return logic.highlight.pieces(a[1], logic.highlight.wordsOf(a[0], a[1])).map((p) => [p.text, p.kind])"
    assert logic.run(body, path, text) == pieces


def test_a_misleading_suffix_does_not_hide_the_language(logic: Logic) -> None:
    body = "return ['a.txt', 'b.v'].map((p) => logic.highlight.wordsOf(p, a[0]).source.includes('architecture'))"
    assert logic.run(body, "  entity adder is\n") == [True, True]
    assert logic.run(body, "module m;\n") == [False, False]
