"""Parts of wiring lists: each by its table, worked out by hand, on the timeline and in lanes alike."""

from __future__ import annotations

from pathlib import Path

import pytest

from obento.core import values as v
from obento.core.check.judging.rules import count_gates, count_levels
from obento.core.limits import Limits
from obento.core.sim.timeline.kernel import Timeline
from obento.core.wiring.kinds.registry import KINDS
from tests.core.designs import build, in_lanes, messages, outputs


def lines(body: str, takes: str, gives: str) -> str:
    return f"wiring m\n  takes {takes}\n  gives {gives}\n{body}\nend\n"


def table(body: str, takes: str, gives: str) -> list[str]:
    """The outputs for all inputs, counted up."""
    return outputs(lines(body, takes, gives), name="a.wiring")


TABLES = [
    # body, takes, gives, a line for each input counted up: `inputs -> outputs`
    ("y <- decoder(s)", "s[2]", "y[4]", "00 0001|01 0010|10 0100|11 1000"),
    ("y <- decoder(s, enable: e)", "e, s", "y[2]", "00 00|01 00|10 01|11 10"),
    (
        "c, a <- encoder(d)",
        "d[3]",
        "c[2], a",
        "000 00 0|001 00 1|010 01 1|011 01 1|100 10 1|101 10 1|110 10 1|111 10 1",
    ),
    ("y <- zero(a)", "a[2]", "y", "00 1|01 0|10 0|11 0"),
    ("y <- negative(a)", "a[2]", "y", "00 0|01 0|10 1|11 1"),
    ("y <- all(a)", "a[2]", "y", "00 0|01 0|10 0|11 1"),
    ("y <- any(a)", "a[2]", "y", "00 0|01 1|10 1|11 1"),
    ("y <- parity(a)", "a[2]", "y", "00 0|01 1|10 1|11 0"),
    ("y <- shift_left(3b011, by)", "by[2]", "y[3]", "00 011|01 110|10 100|11 000"),
    ("y <- shift_right(3b110, by)", "by[2]", "y[3]", "00 110|01 011|10 001|11 000"),
    ("y <- shift_signed(3b100, by)", "by[2]", "y[3]", "00 100|01 110|10 111|11 111"),
    ("y <- rotate_left(3b011, by)", "by[2]", "y[3]", "00 011|01 110|10 101|11 011"),
    ("y <- rotate_right(3b011, by)", "by[2]", "y[3]", "00 011|01 101|10 110|11 011"),
    ("y <- widen(a, bits: 4)", "a[2]", "y[4]", "00 0000|01 0001|10 0010|11 0011"),
    ("y <- widen_signed(a, bits: 4)", "a[2]", "y[4]", "00 0000|01 0001|10 1110|11 1111"),
    (
        "s, c <- add(a, 2b01, carry: i)",
        "a[2], i",
        "s[2], c",
        "000 01 0|001 10 0|010 10 0|011 11 0|100 11 0|101 00 1|110 00 1|111 01 1",
    ),
    ("d, b <- subtract(a, 2b10)", "a[2]", "d[2], b", "00 10 1|01 11 1|10 00 0|11 01 0"),
    ("d, b <- subtract(a, 2b10, borrow: 1)", "a[2]", "d[2], b", "00 01 1|01 10 1|10 11 1|11 00 0"),
    ("y <- negate(a)", "a[2]", "y[2]", "00 00|01 11|10 10|11 01"),
    ("y <- multiply(a, 2d3)", "a[2]", "y[4]", "00 0000|01 0011|10 0110|11 1001"),
    ("y <- multiply_signed(a, 2b11)", "a[2]", "y[4]", "00 0000|01 1111|10 0010|11 0001"),
    ("l, e, g <- compare(a, 2d1)", "a[2]", "l, e, g", "00 1 0 0|01 0 1 0|10 0 0 1|11 0 0 1"),
    ("l, e, g <- compare_signed(a, 2d1)", "a[2]", "l, e, g", "00 1 0 0|01 0 1 0|10 1 0 0|11 1 0 0"),
    ("y <- rom(a, bits: 3, from: {3d5, 3d6, 3d7})", "a[2]", "y[3]", "00 101|01 110|10 111|11 xxx"),
    ("y <- select(s, 2d1, 2d2, 2d3)", "s[2]", "y[2]", "00 01|01 10|10 11|11 xx"),
]  # fmt: skip


@pytest.mark.parametrize(("body", "takes", "gives", "wanted"), TABLES, ids=[t[0] for t in TABLES])
def test_a_part_by_its_table(body: str, takes: str, gives: str, wanted: str) -> None:
    rows = [row.partition(" ") for row in wanted.split("|")]
    assert [int(row[0], 2) for row in rows] == list(range(len(rows)))
    assert table(f"  {body}", takes, gives) == [row[2] for row in rows]


def walk(body: str, takes: str, gives: str, rows: str) -> list[str]:
    """Outputs after each row of inputs, one after the other; in lanes all beginnings of the rows are run side by
    side."""
    design = build(lines(body, takes, gives), name="a.wiring")
    widths = [(p.name, p.signal.width) for p in design.ports if p.direction == "in"]
    cases = []
    for row in rows.split():
        at, case = 0, {}
        for name, width in widths:
            case[name] = v.from_digits(row[at : at + width])
            at += width
        cases.append(case)
    timeline = Timeline(design, Limits())
    timeline.power_up()
    found = []
    for case in cases:
        timeline.apply(case)
        outs = [p for p in design.ports if p.direction == "out"]
        found.append(" ".join(v.to_digits(timeline.value(p.name), p.signal.width) for p in outs))
    last = in_lanes(build(lines(body, takes, gives), name="a.wiring"), [cases])[0]
    assert last is not None and " ".join(last) == found[-1]
    return found


WALKS = [
    # body, takes, gives, inputs step by step, outputs step by step
    ("q <- flipflop(d, rise: c, reset: r)", "c, d, r", "q", "010 110 010 101 001 111 011 110", "x 1 1 0 0 0 0 1"),
    ("q <- flipflop(d, fall: c, reset_low: r)", "c, d, r", "q", "111 011 110 010", "x 1 1 0"),
    (
        "q <- flipflop(d, rise: c, enable: e, preset: p)",
        "c, d, e, p",
        "q",
        "0001 0000 1010 0000 1000 0010 1010",
        "1 1 0 0 0 0 0",
    ),
    ("q <- flipflop_t(t, rise: c, clear: r)", "c, t, r", "q", "001 000 110 010 110 000 100", "0 0 1 1 0 0 0"),
    (
        "q <- flipflop_jk(j, k, rise: c, clear: r)",
        "c, j, k, r",
        "q",
        "0001 0100 1100 0110 1110 0110 1110 0010 1010 0000 1000",
        "0 0 1 1 0 0 1 1 0 0 0",
    ),
    ("q <- flipflop_sr(s, r, rise: c)", "c, s, r", "q", "010 110 001 101 011 111", "x 1 1 0 0 x"),
    ("q <- register(d, rise: c, load: l)", "c, l, d[2]", "q[2]", "0110 1110 0001 1001 0101 1101", "xx 10 10 10 10 01"),
    ("q <- latch(d, open: o)", "o, d", "q", "11 10 00 01 11", "1 0 0 0 1"),
    ("q <- latch_sr(s, r)", "s, r", "q", "00 10 00 01 00 11", "x 1 1 0 0 x"),
    (
        "q, e <- counter(bits: 2, rise: c, clear: r)",
        "c, r",
        "q[2], e",
        "01 00 10 00 10 00 10 00 10",
        "00 0,00 0,01 0,01 0,10 0,10 0,11 1,11 1,00 0",
    ),
    (
        "q, e <- counter(bits: 2, rise: c, clear: r, last: 2d2, down: d)",
        "c, r, d",
        "q[2], e",
        "010 000 100 000 100 000 100 001 101",
        "00 0,00 0,01 0,01 0,10 1,10 1,00 0,00 1,10 0",
    ),
    (
        "q, e <- counter(bits: 2, rise: c, load: l, data: d, enable: n)",
        "c, l, n, d[2]",
        "q[2], e",
        "01111 11111 00100 10100 00000 10000",
        "xx x,11 1,11 1,00 0,00 0,00 0",
    ),
    (
        "w <- ram(a, d, rise: c, write: n)",
        "c, n, a, d[2]",
        "w[2]",
        "01010 11010 00000 01101 11101 00010 00100",
        "xx 10 10 xx 01 10 01",
    ),
    (
        "w <- ram(a, d, rise: c, write: n, from: {2d1, 2d2})",
        "c, n, a, d[2]",
        "w[2]",
        "00000 00100 01111 11111 00000",
        "01 10 10 11 01",
    ),
]  # fmt: skip


@pytest.mark.parametrize(("body", "takes", "gives", "rows", "wanted"), WALKS, ids=[w[0] for w in WALKS])
def test_what_remembers_step_by_step(body: str, takes: str, gives: str, rows: str, wanted: str) -> None:
    found = walk(f"  {body}", takes, gives, rows)
    assert found == (wanted.split(",") if "," in wanted else wanted.split())


def test_every_kind_has_a_table_or_a_walk() -> None:
    bodies = " ".join(t[0] for t in TABLES) + " " + " ".join(w[0] for w in WALKS)
    assert [name for name in KINDS if f"<- {name}(" not in bodies] == []


def test_three_states_and_pulls_on_one_wire() -> None:
    body = "  y <- tristate(a, when: e)\n  y <- tristate(b, when_low: f)\n  y <- pull(1)"
    found = table(body, "a, b, e, f", "y")
    for n, got in enumerate(found):
        a, b, e, f = (n >> k & 1 for k in (3, 2, 1, 0))
        driving = ([a] if e else []) + ([] if f else [b])
        wanted = "1" if not driving else str(driving[0]) if len(set(driving)) == 1 else "x"
        assert got == wanted, (a, b, e, f)
    assert table("  y <- tristate(a, when: e)", "a, e", "y") == ["z", "0", "z", "1"]
    assert table("  y <- pull(0)\n  y <- tristate(a, when: e)", "a[2], e", "y[2]")[:4] == ["00", "00", "00", "01"]


def test_inverted_pins_and_what_is_left_open() -> None:
    assert table("  y <- and(!a, b)", "a, b", "y") == ["0", "1", "0", "0"]
    assert table("  _, e, _ <- compare(a, b)\n  y <- !e", "a, b", "y") == ["0", "1", "1", "0"]
    text = lines("  y <- two(x: a, z: _)", "a", "y") + "wiring two\n takes x, z\n gives p\n p <- or(x, z)\nend\n"
    assert outputs(text, name="a.wiring") == ["x", "1"]


@pytest.mark.parametrize(
    ("body", "expected", "column"),
    [
        ("  y <- and(a, _)", ["0", "x"], 15),
        ("  y <- or(_, a)", ["x", "1"], 11),
        ("  y <- not(_)", ["x", "x"], 12),
        ("  y <- select(_, a, a)", ["0", "1"], 15),
        ("  y <- select(a, _, 1)", ["x", "1"], 18),
        ("  y <- zero(_)", ["x", "x"], 13),
        ("  y, _ <- add(a, _)", ["x", "x"], 18),
        ("  y <- flipflop(a, rise: _)", ["x", "x"], 26),
    ],
)
def test_an_input_that_is_left_open_is_unknown_and_told(body: str, expected: list[str], column: int) -> None:
    assert table(body, "a", "y") == expected
    assert f"4:{column} warning open-input" in messages(lines(body, "a", "y"), name="a.wiring")


def test_only_a_whole_pin_is_left_open() -> None:
    (told,) = messages(lines("  y <- any({a, _})", "a", "y"), name="a.wiring")
    assert told.startswith("4:") and told.endswith("error open-input")


def test_parts_inside_of_gates_and_of_each_other() -> None:
    body = "  y <- and(zero(add(a, b)), any({a, b}))"
    assert table(body, "a[2], b[2]", "y") == [str(int((n >> 2) + (n & 3) == 4)) for n in range(16)]


def test_a_unit_of_ones_own_has_its_name() -> None:
    """Somebody's block that is called as a part is now is meant, and a unit may be called so."""
    text = lines("  y <- zero(a)", "a", "y") + "wiring zero\n takes x\n gives p\n p <- buf(x)\nend\n"
    assert outputs(text, name="a.wiring") == ["0", "1"]
    own = "wiring counter\n takes clk, r\n gives q[2]\n q <- counter(bits: 2, rise: clk, clear: r)\nend\n"
    design = build(own, unit="counter", name="a.wiring")
    assert [s.width for s in design.signals if s.name == "q"] == [2]


@pytest.mark.parametrize(
    ("body", "expected"),
    [
        ("  y <- add(a, b)", "4:15 error width-misfit"),
        ("  y <- frobnicate(a)", "4:8 error no-block"),
        ("  y <- zero()", "4:8 error gate-count"),
        ("  y <- zero(a, b)", "4:16 error no-pin"),
        ("  y <- zero(b: a)", "4:16 error no-pin"),
        ("  y <- widen(a)", "4:8 error pin"),
        ("  y <- widen(a, bits: 2)", "4:14 error width-misfit"),
        ("  y <- widen(a, bits: 2b10)", "4:23 error bad-number"),
        ("  y <- register(a)", "4:8 error pin"),
        ("  y <- register(a, rise: b, fall: b)", "4:8 error pin"),
        ("  y <- register(a, rise: a)", "4:26 error width-misfit"),
        ("  y <- register(a, rise: b, clear: b, clear_low: b)", "4:8 error pin"),
        ("  y <- counter(rise: b)", "4:8 error pin"),
        ("  y <- counter(bits: 4, rise: b, load: b)", "4:8 error pin"),
        ("  y <- rom(b, bits: 4)", "4:8 error pin"),
        ("  y <- rom(b, bits: 4, from: {4d1, 4d2, 4d3})", "4:30 error width-misfit"),
        ("  y <- rom(b, bits: 4, from: {4d1, 3d2})", "4:30 error width-misfit"),
        ("  y <- rom(b, bits: 4, from: {3d1, 5d2})", "4:31 error width-misfit"),
        ("  y <- rom(b, bits: 4, from: a)", "4:30 error pin"),
        ("  y, z, w <- zero(a)", "4:6 error too-many-outputs"),
        ("  y <- tristate(a)", "4:8 error pin"),
        ("  y <- and(a, tristate(a, when: b))", "4:15 error pin"),
        ("  y <- tristate(a, when: b)\n  y <- buf(a)", "5:3 error two-drivers"),
    ],
)
def test_slips_with_parts_are_told_at_their_line(body: str, expected: str) -> None:
    assert expected in messages(lines(body, "a[4], b", "y[4]"), name="a.wiring")


def test_a_part_counts_as_one_of_its_kind() -> None:
    body = "  s, c <- add(a, b)\n  z <- zero(s)\n  y <- flipflop(and(z, c), rise: k)"
    design = build(lines(body, "a[4], b[4], k", "y"), name="a.wiring")
    assert count_gates(design) == {"add": 1, "zero": 1, "and": 1, "flipflop": 1}
    assert count_levels(design) == 3


def test_unknown_operands_spoil_no_more_than_they_must() -> None:
    body = "  q <- latch_sr(0, 0)\n  d <- decoder({q, s})\n  y <- {d, zero({q, s})}"
    assert table(body, "s", "y[5]") == ["0x0xx", "x0x00"]


def test_every_part_is_in_the_description_of_the_format() -> None:
    page = (Path(__file__).parents[2] / "docs/formats.md").read_text(encoding="utf-8")
    assert [name for name in [*KINDS, "tristate", "pull"] if f"{name}(" not in page] == []


def test_a_wire_may_be_called_like_a_part() -> None:
    """A name with brackets behind it is a part, any other is a wire."""
    assert table("y <- any(any)\nz <- zero(zero)", "any[2], zero", "y, z")[2:6] == ["1 1", "1 0", "1 1", "1 0"]
