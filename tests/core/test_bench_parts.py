"""The parts of a bench, each against what its clause says: formats, reading back, dumps, strengths, the private
folder."""

from __future__ import annotations

import pytest

from obento.core import values as v
from obento.core.ir.strength import combine, resolve
from obento.core.sim.bench.display import TimeFormat, characters, decimal, digits
from obento.core.sim.bench.files import Folder
from obento.core.sim.bench.random import DISTRIBUTIONS, Generator
from obento.core.sim.bench.scan import BadMemoryFile, memory_words, scan
from obento.core.sim.bench.vcd import identifier, timescale, value_text
from obento.core.sim.timeline.forces import Held


@pytest.mark.parametrize(
    ("text", "signed", "expected"),
    [
        ("00000101", False, "  5"), ("11111011", True, "  -5"), ("11111011", False, "251"),
        ("10000000", True, "-128"), ("1", False, "1"),
        ("xxxxxxxx", False, "  x"), ("zzzzzzzz", False, "  z"), ("0000xxxx", False, "  X"),
        ("0000zzzz", False, "  Z"), ("00zzxx00", False, "  X"),
    ],
)  # fmt: skip
def test_decimal_in_the_field_its_width_needs(text: str, signed: bool, expected: str) -> None:
    """17.1.1.2 for the field, 17.1.1.4 for unknown digits."""
    assert decimal(v.from_digits(text), len(text), signed, None) == expected
    assert decimal(v.from_digits(text), len(text), signed, 0) == expected.strip()


@pytest.mark.parametrize(
    ("text", "bits", "expected"),
    [
        ("10100101", 4, "a5"), ("110100101", 4, "1a5"), ("xxxx0000", 4, "x0"), ("xx000000", 4, "X0"),
        ("zzzz01zz", 4, "zZ"), ("1x1z", 1, "1x1z"),
        ("111000zzz", 3, "70z"), ("01zx", 3, "0X"),
    ],
)  # fmt: skip
def test_digits_of_other_bases(text: str, bits: int, expected: str) -> None:
    assert digits(v.from_digits(text), len(text), bits, None) == expected


def test_digits_in_a_field_of_their_own() -> None:
    assert digits(v.word(10, 16), 16, 4, 0) == "a"
    assert digits(v.word(10, 16), 16, 4, 3) == "00a"
    assert digits(v.word(0, 16), 16, 4, 0) == "0"


def test_letters_of_a_vector() -> None:
    assert characters(v.word(0x004142, 24), 24) == "AB"


@pytest.mark.parametrize(
    ("form", "ticks", "expected"),
    [
        (TimeFormat(-9), 1500, "                   2"), (TimeFormat(-9, 2, "ns", 10), 1500, "    1.50ns"),
        (TimeFormat(-12, 0, "", 0), 1500, "1500"),
        (TimeFormat(-15, 1, " fs", 0), 2, "2000.0 fs"), (TimeFormat(-6, 3, "us", 0), 1_500_000, "1.500us"),
    ],
)  # fmt: skip
def test_times_are_shown_in_the_unit_asked_for(form: TimeFormat, ticks: int, expected: str) -> None:
    """17.3.2, with a precision of 1 ps."""
    assert form.text(ticks, -12, None) == expected


@pytest.mark.parametrize(
    ("text", "form", "count", "found"),
    [
        ("12 ff", "%d %h", 2, [12, 255]), ("x=7,y=3", "x=%d,y=%d", 2, [7, 3]), ("x=7 y", "x=%d,y=%d", 1, [7]),
        ("", "%d", -1, []), ("abc", "%d", 0, []),
        ("  -5", "%d", 1, [(1 << 32) - 5]), ("1234", "%2d%2d", 2, [12, 34]), ("a 5", "%*s %d", 1, [5]),
        ("50%", "%d%%", 1, [50]),
    ],
)  # fmt: skip
def test_reading_values_out_of_text(text: str, form: str, count: int, found: list[int]) -> None:
    """17.2.4.3; -1 when there is nothing left to read."""
    taken, values, _ = scan(text, 0, form, [32, 32, 32], [False] * 3)
    assert taken == count
    assert [x[0] if isinstance(x, tuple) else x for x in values] == found


def test_memory_files() -> None:
    """17.2.9: words, jumps and comments."""
    words = list(memory_words("// first\n0a FF @10 x3 /* two\nlines */ 1_2", "h"))
    assert [(jump, v.to_digits(word, width)) for jump, word, width in words] == [
        (None, "00001010"), (None, "11111111"), (16, "xxxx0011"), (None, "00010010"),
    ]  # fmt: skip
    with pytest.raises(BadMemoryFile) as bad:
        list(memory_words("01\n12\n", "b"))
    assert (bad.value.line, bad.value.text) == (2, "12")


def test_the_generator_of_the_listing() -> None:
    """17.9.3; the first numbers of seed 0 are known everywhere."""
    generator = Generator()
    assert [generator.number() for _ in range(4)] == [303379748, -1064739199, -2071669239, -1309649309]
    for name, arguments, low, high in [
        ("$dist_uniform", (3, 9), 3, 9),
        ("$dist_poisson", (4,), 0, 40),
        ("$dist_exponential", (5,), 0, 200),
    ]:
        drawn = [DISTRIBUTIONS[name](generator, *arguments) for _ in range(200)]
        assert all(low <= x <= high for x in drawn) and len(set(drawn)) > 3, name
    normal = [DISTRIBUTIONS["$dist_normal"](generator, 100, 10) for _ in range(400)]
    assert 97 < sum(normal) / 400 < 103


@pytest.mark.parametrize(
    ("text", "expected"),
    [("0000", "b0 !"), ("0101", "b101 !"), ("x010", "bx010 !"), ("xx01", "bx01 !"), ("zzzz", "bz !"),
    ("0x10", "b0x10 !"), ("1xxx", "b1xxx !"), ("z", "z!"), ("1", "1!")],
)  # fmt: skip
def test_values_in_a_dump_are_as_short_as_filling_allows(text: str, expected: str) -> None:
    """18.2.1 and table 18-1: 1 and 0 are filled up with 0, x with x, z with z."""
    assert value_text(v.from_digits(text), len(text), "!") == expected + "\n"


def test_names_and_units_of_a_dump() -> None:
    assert [identifier(n) for n in (0, 93, 94, 187, 188)] == ["!", "~", "!!", "!~", '"!']
    assert len({identifier(n) for n in range(20_000)}) == 20_000
    assert [timescale(p) for p in (0, -1, -9, -10, -11, -12, -15)] == [
        "1s",
        "100ms",
        "1ns",
        "100ps",
        "10ps",
        "1ps",
        "1fs",
    ]


@pytest.mark.parametrize(
    ("a", "b", "expected"),
    [
        ((6, 6), (-5, -5), (6, 6)), ((6, 6), (-6, -6), (-6, 6)), ((0, 0), (-3, -3), (-3, -3)), ((-6, 6), (5, 5),
        (-6, 6)), ((0, 6), (5, 5), (5, 6)),
        ((-6, 0), (5, 5), (-6, 5)), ((-3, 3), (6, 6), (6, 6)), ((0, 6), (0, 6), (0, 6)), ((7, 7), (-6, 6), (7, 7)),
    ],
)  # fmt: skip
def test_signals_of_two_strengths_on_one_wire(
    a: tuple[int, int], b: tuple[int, int], expected: tuple[int, int]
) -> None:
    """7.10.1 and 7.10.2, on the scale of figure 7-3."""
    assert combine(a, b) == expected == combine(b, a)


@pytest.mark.parametrize(
    ("net", "drivers", "expected"),
    [
        ("wire", "01", "x"), ("wire", "0z", "0"), ("wire", "zz", "z"), ("wire", "xz", "x"), ("wand", "01", "0"),
        ("wand", "1z", "1"), ("wand", "1x", "x"),
        ("wand", "0x", "0"), ("wor", "01", "1"), ("wor", "0x", "x"), ("wor", "zz", "z"), ("tri0", "zz", "0"),
        ("tri1", "zz", "1"), ("tri1", "0z", "0"), ("tri0", "1z", "1"),
    ],
)  # fmt: skip
def test_tables_of_wired_nets(net: str, drivers: str, expected: str) -> None:
    """Tables 4-2 to 4-4."""
    words = [v.from_digits(d) for d in drivers]
    assert v.to_digits(resolve(net, words, [None] * len(words), [(6, 6)] * len(words), 1), 1) == expected


def test_what_is_held() -> None:
    """9.3: a net falls back to its drivers, a variable keeps what it showed."""
    net, variable = (Held(4, is_net, v.from_digits("0000"), {}, {}) for is_net in (True, False))
    for held in (net, variable):
        held.hold("force", 1, 2, v.from_digits("11"))
        held.write(0, 4, v.from_digits("1001"))
    assert v.to_digits(net.shown(), 4) == "1111" == v.to_digits(variable.shown(), 4)
    for held in (net, variable):
        held.let_go("force", 1, 2)
    assert (v.to_digits(net.shown(), 4), v.to_digits(variable.shown(), 4)) == ("1001", "1111")


def test_the_private_folder() -> None:
    printed: list[str] = []
    spent: list[int] = []
    folder = Folder({"lab/in.txt": "one\ntwo"}, printed.append, spent.append)
    channel = folder.open("a.log", None)
    assert channel == 2 and folder.open("b.log", None) == 4
    folder.write(channel | 1, "x")
    assert printed == ["x"] and folder.text("a.log") == "x" and sum(spent) == 1
    reader = folder.open("in.txt", "r")
    assert reader >> 31 == 1 and folder.open("nothing", "r") == 0
    file = folder.reader(reader)
    assert file is not None and file.line(100) == "one\n" and chr(file.character()) == "t" and file.line(1) == "w"
    assert not file.ended and file.line(9) == "o" and file.ended and file.character() == -1
    assert all(folder.open(f"f{i}", "w") for i in range(20)) and folder.open("f", "w") != 0
    folder.close(reader)
    assert folder.reader(reader) is None
