"""Changes in a comment that a letter draws: what is read as lines of a wiring list, and what stays text."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obento.core.board.changes import MOST_LINES, Change, Driven, Piece, changes_in


def named(text: str) -> Piece:
    return Piece("name", text)


def said(piece: Piece) -> str:
    """A piece as one would write it, an inverted one with `~`."""
    if piece.kind == "name":
        return piece.text
    return f"{'~' if piece.is_inverted else ''}{piece.kind}({' '.join(map(said, piece.inputs))})"


def only(text: str) -> Change:
    (change,) = changes_in(text)
    return change


def test_a_gate_before_and_after() -> None:
    found = only(
        "Look at line 4:\n- shut <- or(safe, boat_clear)\n+ shut <- nor(safe, boat_clear)\nThen all are right."
    )
    assert (found.first, found.count) == (1, 2)
    assert found.before == [Driven(["shut"], Piece("or", "or", False, [named("safe"), named("boat_clear")]))]
    assert found.after == [Driven(["shut"], Piece("or", "nor", True, [named("safe"), named("boat_clear")]))]


@pytest.mark.parametrize(
    ("line", "drawn"),
    [
        ("y <- a", "a"),
        ("y <- !a", "~not(a)"),
        ("y <- !and(a, b)", "~and(a b)"),
        ("y <- and(!a, or(b, c), 1)", "and(~not(a) or(b c) 1)"),
        ("y <- xnor(a[3..1], 3d5)", "~xor(a[3..1] 3d5)"),
        ("y <- {a, b}", "join(a b)"),
        ("y <- select(s, a, b) // which", "select(s a b)"),
        ("q <- dff(d, rise: clk, set: _)", "part(d rise: clk set: open)"),
        ("k: y, c <- add(a, b)", "part(a b)"),
    ],
)
def test_lines_as_trees_of_parts(line: str, drawn: str) -> None:
    found = only(f"+ {line}")
    assert not found.before
    assert [said(d.piece) for d in found.after] == [drawn]


def test_what_is_driven_is_named_as_it_is_written() -> None:
    (driven,) = only("- sum[3..0], c <- add(a, b)").before
    assert driven.names == ["sum[3..0]", "c"]


@pytest.mark.parametrize(
    "text",
    [
        "",
        "- mind the brackets\n- and the names",
        "- y <- and(a, b)\n- so much for that",  # one of them cannot be drawn: they stay together as text
        "+ place n1 4 4",
        "+ y <- and(a,",
        "+ y <- and(a, b) or",
        "+ y <- and(a, 4)",  # a number needs a width
        "y <- and(a, b)",
        "\n".join(["- y <- and(a, b)"] * (MOST_LINES + 1)),
        "+ y <- and(" + ", ".join(["a"] * 60) + ")",
        "+ y <- " + "!" * 5000 + "a",
    ],
)
def test_what_cannot_be_drawn_stays_text(text: str) -> None:
    assert not changes_in(text)


def test_two_changes_of_one_comment() -> None:
    text = "first\n- y <- and(a, b)\n+ y <- or(a, b)\nthen\n- z <- a\n+ z <- !a\n"
    assert [(c.first, c.count, len(c.before), len(c.after)) for c in changes_in(text)] == [(1, 2, 1, 1), (4, 2, 1, 1)]


@given(st.text(alphabet="-+ ab(){}!,<.[]:_01\n", max_size=80))
def test_any_text_is_read_without_an_error(text: str) -> None:
    lines = text.split("\n")
    for change in changes_in(text):
        assert all(line[:2] in ("- ", "+ ") for line in lines[change.first : change.first + change.count])
        assert change.count == len(change.before) + len(change.after)
