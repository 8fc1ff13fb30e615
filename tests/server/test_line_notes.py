"""What is said at the lines of a source: each thing once."""

from __future__ import annotations

from obento.core.check.judging.outcome import Finding
from obento.core.diagnostics import Message
from obento.server.review.view import _line_notes
from obento.store.results import Detail


def notes(messages: list[Message], findings: list[Finding]) -> list[tuple[int, str, str]]:
    detail = Detail("", [], findings, messages, "", {})
    return [(n.line, n.severity, n.text) for n in _line_notes(detail)]


def test_what_is_a_message_and_a_finding_is_said_once_with_its_advice() -> None:
    message = Message("warning", "latch", "a.sv", 4, 3, "`o` keeps its last value", "give it one")
    finding = Finding("latch", "`o` keeps its last value", "y", "a.sv", 4)
    assert notes([message], [finding]) == [(4, "finding", "`o` keeps its last value (give it one)")]


def test_a_finding_for_two_outputs_at_one_line_is_said_once() -> None:
    findings = [Finding("latch", "it keeps its last value", output, "a.sv", 4) for output in ("y", "z")]
    assert notes([], findings) == [(4, "finding", "it keeps its last value")]


def test_the_same_words_at_other_lines_stay() -> None:
    message = Message("warning", "latch", "a.sv", 5, 3, "it keeps its last value")
    assert notes([message], [Finding("latch", "it keeps its last value", "y", "a.sv", 4)]) == [
        (5, "warning", "it keeps its last value"),
        (4, "finding", "it keeps its last value"),
    ]


def test_what_has_no_line_is_not_at_one() -> None:
    assert notes([Message("note", "twice", "a.sv", 0, 0, "stands twice")], [Finding("offset", "one more", "y")]) == []
