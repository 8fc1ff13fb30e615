"""Strings of SystemVerilog: operators and methods (IEEE 1800-2017 clause 6.16)."""

from __future__ import annotations

import re
from collections.abc import Callable

from obento.core import values as v
from obento.core.limits import LimitReached
from obento.core.values import Word

MOST_LETTERS = 1 << 20
"""Letters of the longest string; what is longer is cut."""


MOST_KEPT = 512
"""Letters of the longest string that is a member of a structure."""


def number(word: Word, width: int = 32) -> int:
    """A word as a whole number with its sign; unknown digits read 0."""
    return v.signed_value(word[0] & ~word[1], width)


def from_digits(word: Word) -> str:
    """A vector as a string: eight digits a letter, bytes of 0 left out (6.16)."""
    known = word[0] & ~word[1]
    return known.to_bytes((known.bit_length() + 7) // 8, "big").decode("latin-1").replace("\0", "")


def to_digits(text: str, width: int) -> Word:
    """A string as a vector: its last letters where it is too long."""
    data = text.encode("latin-1", "replace")
    return v.word(int.from_bytes(data, "big"), width)


def to_kept(text: str) -> Word:
    """A string as the digits that a structure keeps of it.

    Raises
    ------
    LimitReached
        It is too long.
    """
    if len(text) > MOST_KEPT:
        raise LimitReached(f"a string in a structure has more than {MOST_KEPT} letters: more than can be kept")
    return to_digits(text, 8 * MOST_KEPT)


def _join(*parts: str) -> str:
    return "".join(parts)[:MOST_LETTERS]


def _repeat(count: Word, text: str) -> str:
    times = min(max(0, number(count)), MOST_LETTERS // max(1, len(text)))
    return text * times


def _choose(cond: Word, a: str, b: str) -> str:
    return a if cond == v.ONE1 else b


def _substr(text: str, first: Word, last: Word) -> str:
    """Letters from one to the other, nothing where they are not both in it in order (6.16.8)."""
    i, j = number(first), number(last)
    return text[i : j + 1] if 0 <= i <= j < len(text) else ""


def _putc(text: str, at: Word, letter: Word) -> str:
    """With another letter at a place; as it was where there is none, or the letter is 0 (6.16.2)."""
    i, code = number(at), letter[0] & ~letter[1] & 255
    return text[:i] + chr(code) + text[i + 1 :] if 0 <= i < len(text) and code else text


def _with_base(radix: str) -> Callable[[Word], str]:
    return lambda word: f"{number(word) & 0xFFFFFFFF:{radix}}" if radix != "d" else str(number(word))


TEXT_OPS: dict[str, Callable[..., str]] = {
    "join": _join,
    "repeat": _repeat,
    "choose": _choose,
    "upper": str.upper,
    "lower": str.lower,
    "substr": _substr,
    "putc": _putc,
    "digits": from_digits,
    "itoa": _with_base("d"),
    "hextoa": _with_base("x"),
    "octtoa": _with_base("o"),
    "bintoa": _with_base("b"),
    "realtoa": lambda x: f"{x:g}",
}
"""What gives a string."""


def _compare(a: str, b: str) -> Word:
    return v.word((a > b) - (a < b), 32)


def _getc(text: str, at: Word) -> Word:
    i = number(at)
    return v.word(ord(text[i]) & 255 if 0 <= i < len(text) else 0, 8)


def _leading(digits: str, base: int) -> Callable[[str], Word]:
    """The number that a string begins with (6.16.9): underlines are passed over, what follows is not looked at."""
    pattern = re.compile(f"[{digits}_]*", re.IGNORECASE)

    def read(text: str) -> Word:
        found = pattern.match(text)
        letters = found.group().replace("_", "") if found is not None else ""
        return v.word(int(letters, base) if letters else 0, 32)

    return read


TEXT_VALUES: dict[str, Callable[..., Word]] = {
    "len": lambda text: v.word(len(text), 32),
    "getc": _getc,
    "kept": to_kept,
    "compare": _compare,
    "icompare": lambda a, b: _compare(a.lower(), b.lower()),
    "atoi": _leading("0-9", 10),
    "atohex": _leading("0-9a-f", 16),
    "atooct": _leading("0-7", 8),
    "atobin": _leading("01", 2),
    "eq": lambda a, b: v.bit(a == b),
    "ne": lambda a, b: v.bit(a != b),
    "lt": lambda a, b: v.bit(a < b),
    "le": lambda a, b: v.bit(a <= b),
}
"""What is asked of strings."""
