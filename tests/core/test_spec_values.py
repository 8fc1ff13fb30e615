"""Values in the tables of specs: digits or numbers, x as a don't-care, rows that stand twice, names that a language
reserves."""

from __future__ import annotations

import re

import pytest

from obento.core import values
from obento.core.check.check import LoadedSpec, open_spec
from obento.core.spec.model import SpecPort
from obento.core.spec.table import BadCell, parse_value

HEAD = 'obento = "spec/1"\nunit = "{unit}"\n[ports]\nin = "{i}"\nout = "{o}"\n'


def load(body: str, i: str = "a b", o: str = "y", unit: str = "m", edition: int = 2) -> LoadedSpec:
    return open_spec("s.toml", (HEAD.format(i=i, o=o, unit=unit) + body).encode(), {}, edition=edition)


def table(*rows: str, head: str = "a b | y", rest: str = "") -> str:
    return "[expect]\n" + rest + "table = '''\n" + "\n".join([head, *rows]) + "\n'''\n"


def codes(loaded: LoadedSpec) -> list[str]:
    return [f"{m.line}:{m.column} {m.severity} {m.code}" for m in loaded.messages]


def port(width: int, signed: bool = False, radix: str = "bin") -> SpecPort:
    return SpecPort("w", "out", width, width - 1, 0, signed, radix)  # type: ignore[arg-type]


def shown(word: str, width: int, signed: bool = False) -> str:
    cell = parse_value(word, port(width, signed))
    digits = values.to_digits(cell.word, width)
    return "".join(d if cell.care >> (width - 1 - i) & 1 else "-" for i, d in enumerate(digits))


@pytest.mark.parametrize(
    ("word", "width", "digits"),
    [
        ("0x", 2, "0x"), ("0X", 2, "0x"), ("0z", 2, "0z"), ("0x11", 4, "0x11"), ("0xz1", 4, "0xz1"),
        ("0x-1", 4, "0x-1"), ("xx01", 4, "xx01"),
        ("0x1F", 8, "00011111"), ("0x1", 4, "0001"), ("0x01", 8, "00000001"), ("0b0x1", 3, "0x1"),
        ("0b-1", 2, "-1"), ("-1", 2, "-1"), ("1-", 2, "1-"),
        ("0d3", 4, "0011"), ("1_0", 2, "10"), ("-", 3, "-"), ("x", 3, "xxx"),
    ],
)  # fmt: skip
def test_what_is_as_long_as_the_port_is_digits(word: str, width: int, digits: str) -> None:
    if word == "-":
        assert parse_value(word, port(width)).care == 0
    else:
        assert shown(word, width) == digits


@pytest.mark.parametrize(
    ("word", "width", "signed", "ways"),
    [
        ("0x1", 3, False, ("0b0x1", "001")),
        ("0x01", 4, False, ("0b0x01", "0001")),
        ("0X0", 3, False, ("0b0x0", "000")),
        ("-1", 2, True, ("0b-1", "11")),
    ],
)
def test_what_can_be_read_in_two_ways_names_both(word: str, width: int, signed: bool, ways: tuple[str, str]) -> None:
    with pytest.raises(BadCell) as bad:
        parse_value(word, port(width, signed))
    first, second = ways
    assert first in bad.value.hint and second in bad.value.hint
    assert shown(first, width, signed).replace("-", "").strip("01xz") == ""
    assert parse_value(second, port(width, signed)).care == values.ones(width)


def test_every_cell_of_binary_signs_is_digits_a_number_or_clear_about_it() -> None:
    """All words of up to four signs in ports of one to four bits: never a number where digits of that length were
    possible."""
    signs = "01xz-"
    words = [""]
    for _ in range(4):
        words += [w + s for w in words if len(w) == max(map(len, words)) for s in signs]
    for word in filter(None, words):
        for width in range(1, 5):
            for signed in (False, True):
                try:
                    cell = parse_value(word, port(width, signed))
                except BadCell:
                    continue
                if len(word) == width:
                    assert shown(word, width, signed) == word, (word, width)
                elif len(word) > 1:
                    assert re.fullmatch(r"0x[01]+|-[01]+", word) and cell.care == values.ones(width), (word, width)


def test_ambiguous_cells_point_at_their_place() -> None:
    loaded = load(table("0 | 0x1", "1 | 110", head="a | w"), i="a", o="w[3]")
    assert (
        codes(loaded) == ["9:5 error bad-value"]
        and "0b0x1" in loaded.messages[0].hint
        and "001" in loaded.messages[0].hint
    )
    steps = "[clock]\nport = 'clk'\n[expect]\nsteps = '''\nclk | w\nc | 0x1\n'''\n"
    assert "bad-value" in [m.code for m in load(steps, i="clk", o="w[3]").messages]


def test_an_earlier_edition_goes_on_meaning_what_it_meant() -> None:
    loaded = load(table("0 | 0x1", "1 | 110", head="a | w"), i="a", o="w[3]", edition=1)
    assert (
        loaded.expectation is not None
        and loaded.expectation.bits["w", 0].one == 1
        and loaded.expectation.bits["w", 1].one == 2
    )
    assert load(table("0 x | 1", "0 - | 1", "1 - | 0"), edition=1).expectation is not None


# X as a don't-care.


def test_x_left_of_the_bar_is_an_error_that_says_what_to_write() -> None:
    loaded = load(table("0 X | 1", "1 - | 0"))
    assert codes(loaded) == ["9:3 error bad-value"] and "`-`" in loaded.messages[0].hint
    function = "[clock]\nport = 'clk'\n[expect]\nfunction = '''\nclk d y | y\nr 1 x | 1\nr 0 - | 0\n'''\n"
    assert [m.code for m in load(function, i="clk d").messages if m.severity == "error"] == ["bad-value"]


def test_x_right_of_the_bar_is_asked_about() -> None:
    rows = "0 0 | X", "0 1 | 0", "1 - | 1"
    asked = load(table(*rows))
    assert (
        "9:1 warning which-x" in codes(asked)
        and asked.expectation is not None
        and asked.expectation.bits["y", 0].care == 0b1111
    )
    any_value = load(table(*rows, rest='x = "any"\n'))
    assert (
        any_value.messages == []
        and any_value.expectation is not None
        and any_value.expectation.bits["y", 0].care == 0b1110
    )
    unknown = load(table(*rows, rest='x = "unknown"\n'))
    assert (
        unknown.messages == [] and unknown.expectation is not None and unknown.expectation.bits["y", 0].care == 0b1111
    )
    assert "bad-value" in [m.code for m in load(table(*rows, rest='x = "perhaps"\n')).messages]


def test_unknown_outputs_of_unknown_inputs_need_no_question() -> None:
    listed = "[expect]\n[cases]\nlisted = '''\na b | y\n1 x | x\n0 1 | 0\n'''\n"
    assert [m.code for m in load(listed).messages] == ["x-applied"]
    assert load(listed.replace("[expect]\n", '[expect]\nx = "unknown"\n')).messages == []
    expanded = load(listed.replace("[expect]\n", '[expect]\nx = "any"\n'))
    assert (
        expanded.expectation is not None
        and expanded.expectation.cases.count == 3
        and expanded.expectation.cases.all_known
    )


def test_x_in_steps_and_function_tables() -> None:
    steps = "[clock]\nport = 'clk'\n[expect]\n{x}steps = '''\nclk d | y\nc 1 | x\nc 0 | 0\n'''\n"
    assert "which-x" in [m.code for m in load(steps.format(x=""), i="clk d").messages]
    answered = load(steps.format(x='x = "any"\n'), i="clk d")
    assert (
        answered.messages == [] and answered.expectation is not None and answered.expectation.bits["y", 0].care == 0b10
    )
    function = "[clock]\nport = 'clk'\n[expect]\n{x}function = '''\nclk d y | y\nr 1 - | x\nr 0 - | 0\n'''\n"
    assert "which-x" in [m.code for m in load(function.format(x=""), i="clk d").messages]
    assert "which-x" not in [m.code for m in load(function.format(x='x = "any"\n'), i="clk d").messages]


# Rows that stand twice, and names.


def test_a_row_that_stands_twice_is_told() -> None:
    loaded = load(table("0 - | 1", "1 - | 0", "0 - | 1"))
    assert codes(loaded) == ["11:1 warning row-twice"] and "line 2" in loaded.messages[0].text
    listed = load("[expect]\nequations = 'y = a'\n[cases]\nlisted = '''\na b\n0 1\n1 1\n0 1\n'''\n")
    assert (
        "row-twice" in [m.code for m in listed.messages]
        and listed.expectation is not None
        and listed.expectation.cases.count == 2
    )
    assert load(table("0 - | 1", "0 0 | 1", "1 - | 0")).messages == []  # another row, which says the same of some


@pytest.mark.parametrize(
    ("unit", "i", "languages", "named"),
    [
        ("gate", "signal b", "", ["VHDL"]),
        ("reg", "a b", "", ["Verilog"]),
        ("entity", "a b", "", ["VHDL"]),
        ("Entity", "a b", "", ["VHDL"]),
        ("final", "a b", "", ["SystemVerilog"]),
        ("nand", "a b", "", ["Verilog", "VHDL", "wiring lists"]),
        ("takes", "a b", "", ["wiring lists"]),
        ("latch", "a b", "", ["wiring lists"]),
        ("counter", "zero b", "", []),  # parts that came later than the gates stand back for a port or a unit
        ("entity", "a b", '[rules]\nlanguages = ["verilog"]\n', []),
        ("entity", "a b", '[rules]\nlanguages = ["vhdl", "verilog"]\n', ["VHDL"]),
    ],
)
def test_names_that_an_allowed_language_reserves_are_told(unit: str, i: str, languages: str, named: list[str]) -> None:
    loaded = load("[expect]\nequations = 'y = b'\n" + languages, unit=unit, i=i)
    told = [m for m in loaded.messages if m.code == "reserved-name"]
    assert loaded.expectation is not None and len(told) == (1 if named else 0)
    for name in named:
        assert name in told[0].text
