"""Reading values out of text (IEEE 1364-2005 clauses 17.2.4.3 and 17.2.9)."""

from __future__ import annotations

import pytest

from obento.core import values
from obento.core.sim.bench.scan import BadMemoryFile, digits_to_word, memory_words, scan


def read(text: str, form: str, *widths: int, reals: tuple[int, ...] = ()) -> tuple[int, list[str]]:
    flags = [i in reals for i in range(len(widths))]
    count, found, _ = scan(text, 0, form, list(widths), flags)
    shown = []
    for i, value in enumerate(found):
        shown.append(str(value) if isinstance(value, float) else values.to_digits(value, widths[i]))
    return count, shown


@pytest.mark.parametrize(
    ("text", "form", "widths", "count", "shown"),
    [
        ("12 7", "%d %d", (8, 4), 2, ["00001100", "0111"]),
        ("  12", "%d", (8,), 1, ["00001100"]),
        ("-1", "%d", (4,), 1, ["1111"]),
        ("+5", "%d", (4,), 1, ["0101"]),
        ("1_000", "%d", (10,), 1, ["1111101000"]),
        ("x", "%d", (3,), 1, ["xxx"]),
        ("Z", "%d", (3,), 1, ["zzz"]),
        ("1x0z", "%b", (4,), 1, ["1x0z"]),
        ("1_0?1", "%b", (4,), 1, ["10z1"]),
        ("7x", "%o", (6,), 1, ["111xxx"]),
        ("a5", "%h", (8,), 1, ["10100101"]),
        ("a5", "%X", (8,), 1, ["10100101"]),
        ("ab", "%c%c", (8, 8), 2, ["01100001", "01100010"]),
        ("one two", "%s", (24,), 1, ["011011110110111001100101"]),
        ("1234", "%2d%d", (8, 8), 2, ["00001100", "00100010"]),
        ("5 6", "%*d %d", (4,), 1, ["0110"]),
        ("a=5;b=6", "a=%d;b=%d", (4, 4), 2, ["0101", "0110"]),
        ("50%", "%d%%", (8,), 1, ["00110010"]),
        # reading stops where the text is not what the format says, and tells how far it came
        ("5 six", "%d %d", (4, 4), 1, ["0101"]),
        ("six", "%d", (4,), 0, []),
        ("a=5", "b=%d", (4,), 0, []),
        ("5", "%d %d", (4, 4), 1, ["0101"]),
        ("5 6", "%d %d", (4,), 1, ["0101"]),
        ("5", "%q", (4,), 0, []),
        ("5", "%", (4,), 0, []),
        # at the end of the text
        ("", "%d", (4,), -1, []),
        ("  \n", "%d", (4,), -1, []),
    ],
)
def test_a_text_is_read_by_its_format(
    text: str, form: str, widths: tuple[int, ...], count: int, shown: list[str]
) -> None:
    assert read(text, form, *widths) == (count, shown)


def test_real_numbers_by_letter_and_by_where_they_go() -> None:
    assert read("2.5 -1e3 .25", "%f %e %g", 64, 64, 64) == (3, ["2.5", "-1000.0", "0.25"])
    assert read("7", "%d", 64, reals=(0,)) == (1, ["7.0"])


def test_it_says_where_it_stopped() -> None:
    count, _, at = scan("12 34 rest", 0, "%d %d", [8, 8], [False, False])
    assert (count, at) == (2, 5)
    assert scan("12 34 rest", at, "%s", [32], [False])[2] == 10


def test_digits_of_each_base() -> None:
    assert digits_to_word("1x_z?", 1) == (values.from_digits("1xzz"), 4)
    assert digits_to_word("f0", 4) == ((0xF0, 0x0F), 8)
    assert digits_to_word("7", 3) == ((7, 0), 3)


def test_a_memory_file() -> None:
    text = "// first\n1010 11_00\n/* over\nlines */ @1F xxxx\n@a\nz"
    assert list(memory_words(text, "b")) == [
        (None, values.from_digits("1010"), 4),
        (None, values.from_digits("1100"), 4),
        (0x1F, values.from_digits("xxxx"), 4),
        (0xA, values.from_digits("z"), 1),
    ]
    assert [w for _, w, _ in memory_words("ff Xz", "h")] == [(0xFF, 0), (0x0F, 0x0F)]


@pytest.mark.parametrize(
    ("text", "base", "line", "said"), [("0\n12\n", "b", 2, "12"), ("00\n\nq1", "h", 3, "q1"), ("1 $", "b", 1, "$")]
)
def test_what_cannot_stand_in_a_memory_file(text: str, base: str, line: int, said: str) -> None:
    with pytest.raises(BadMemoryFile) as bad:
        list(memory_words(text, base))
    assert (bad.value.line, bad.value.text) == (line, said)
