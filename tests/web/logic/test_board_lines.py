"""What is done to the lines of a wiring list from the drawing (features/board/lines.ts, looks.ts)."""

from __future__ import annotations

import pytest

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.source import Sources
from obento.core.wiring.parser import read_wirings
from tests.web.logic.conftest import Logic


def after(logic: Logic, call: str, line: str, *arguments: object) -> str:
    """The line after an act on it, as the second of a text."""
    text = str(logic.run(f"return logic.boardLines.{call}(...a)", f"first\n{line}\nlast", 2, *arguments))
    head, middle, tail = text.split("\n")
    assert (head, tail) == ("first", "last")
    return middle


@pytest.mark.parametrize(
    ("line", "given"),
    [
        ("  y <- and(a, !b)  // and so on", [("", "a"), ("", "!b")]),
        ("  g1: y, z[1..0] <- pair(x: {a, b[2]}, z: or(c, d))", [("x", "{a, b[2]}"), ("z", "or(c, d)")]),
        ("  y <- !flipflop( d , rise: clk )", [("", "d"), ("rise", "clk")]),
        ("  y <- ram(a[3..0], 4b1010)", [("", "a[3..0]"), ("", "4b1010")]),
        ("  y <- one()", []),
    ],
)
def test_what_a_part_is_given_is_found(logic: Logic, line: str, given: list[tuple[str, str]]) -> None:
    found = logic.run("return logic.boardLines.callOf(a[0]).given", line)
    assert [(g["pin"], g["value"]) for g in found] == given
    assert [line[g["start"] : g["end"]] for g in found] == [value for _, value in given]


@pytest.mark.parametrize(
    "line", ["  y <- a", "  y <- and(a, b", "  takes a, b", "", "  y <- {a, b}", "  // y <- and(a)"]
)
def test_what_is_no_part_has_nothing(logic: Logic, line: str) -> None:
    for call in ("withInvertedOutput", "withOneMore", "withInvertedInput"):
        assert after(logic, call, line, 0) == line


@pytest.mark.parametrize(
    ("call", "arguments", "line", "expected"),
    [
        ("withGate", ["nor"], "  g: y <- and(a, b) // why", "  g: y <- nor(a, b) // why"),
        ("withGate", ["or"], "y<-!and( a )", "y<-!or( a )"),
        ("withInvertedOutput", [], "  y <- and(and, b)", "  y <- nand(and, b)"),
        ("withInvertedOutput", [], "  y <- xnor(a, b)", "  y <- xor(a, b)"),
        ("withInvertedOutput", [], "  y <- zero(a)", "  y <- !zero(a)"),
        ("withInvertedOutput", [], "  y <- ! zero(a)", "  y <- zero(a)"),
        ("withGiven", [1, "c[2]"], "  y <- and(a, b, d)", "  y <- and(a, c[2], d)"),
        ("withGiven", [0, "_"], "  y <- f(x: {a, b}, z: c)", "  y <- f(x: _, z: c)"),
        ("withGiven", [1, None], "  y <- and(a, or(b, c), d) // x", "  y <- and(a, d) // x"),
        ("withGiven", [7, "c"], "  y <- and(a, b)", "  y <- and(a, b)"),
        ("withInvertedInput", [0], "  y <- and(a, b)", "  y <- and(!a, b)"),
        ("withInvertedInput", [1], "  y <- f(x: a, z: !b)", "  y <- f(x: a, z: b)"),
        ("withInvertedInput", [1], "  y <- and(a, _)", "  y <- and(a, _)"),
        ("withOneMore", [], "  y <- and(a, b) // x", "  y <- and(a, b, _) // x"),
        ("withOneMore", [], "  y <- and()", "  y <- and(_)"),
    ],
)
def test_acts_on_a_line(logic: Logic, call: str, arguments: list[object], line: str, expected: str) -> None:
    assert after(logic, call, line, *arguments) == expected


def test_two_inversions_are_none(logic: Logic) -> None:
    for kind in ("and", "or", "xor", "nand", "nor", "xnor", "not", "buf", "select", "add"):
        line = f"  y <- {kind}(a, b)"
        once = after(logic, "withInvertedOutput", line)
        assert once != line and after(logic, "withInvertedOutput", once) == line


CIRCUIT = "wiring m\n  takes a, b\n  gives y\n  g1: n <- and(a, b)\n  y <- pair(x: n, z: b)\nend\nwiring pair\n takes x, z\n gives p\n p <- or(x, z)\nend\n"  # fmt: skip  # noqa: E501


def test_every_look_that_is_written_is_one_that_is_read(logic: Logic) -> None:
    """What the drawing writes is what the parser of wiring lists takes, and what the drawing reads again."""
    text = logic.run(
        "const l = logic.looks; let t = a[0];"
        "t = l.withPlace(t, 4, 123, 56); t = l.withTurn(t, 4); t = l.withFold(t, 7, false); t = l.withNamed(t, 4);"
        "t = l.withGroup(t, [4, 9], 'the \"safe\" way'); t = l.withRemark(t, 'why? \"so\"', 31, 4); return t",
        CIRCUIT,
    )
    collector = Collector()
    wirings = read_wirings(Sources().add("a.wiring", text), collector, Limits())
    assert len(wirings) == 2 and collector.items() == []
    looks = logic.run(
        "const f = logic.looks.looksOf(a[0]);"
        "return [[...f.places], [...f.turned], [...f.unfolded], [...f.named], f.groups, f.remarks]",
        text,
    )
    assert looks[0] == [["g1", {"x": 120, "y": 60}]] and looks[1] == [["g1", "down"]]
    assert looks[3] == ["n"] and looks[4][0]["text"] == "the 'safe' way"
    assert looks[5][0]["text"] == "why? 'so'" and (looks[5][0]["x"], looks[5][0]["y"]) == (30, 0)


def test_four_turns_and_two_names_are_none(logic: Logic) -> None:
    turned = "const l = logic.looks; let t = a[0]; for (let i = 0; i < 4; i++) t = l.withTurn(t, 4); return t"
    assert logic.run(turned, CIRCUIT) == CIRCUIT
    named = "const l = logic.looks; return l.withNamed(l.withNamed(a[0], 4), 4)"
    assert logic.run(named, CIRCUIT) == CIRCUIT
    assert logic.run("const l = logic.looks; return l.tidied(l.withPlace(a[0], 4, 9, 9))", CIRCUIT) == CIRCUIT


def test_a_look_is_changed_where_it_stands(logic: Logic) -> None:
    text = logic.run("const l = logic.looks; return l.withPlace(l.withPlace(a[0], 4, 10, 10), 4, 200, 30)", CIRCUIT)
    assert text.count("place g1") == 1 and "  place g1 20 3\n" in text
    sides = logic.run(
        "const l = logic.looks; return l.withSide(l.withSide(a[0], 5, 'x', 'below'), 5, 'x', 'above')", CIRCUIT
    )
    assert "  side y.x above\n" in sides and sides.count("side ") == 1
