"""Reading values out of text: $sscanf and $fscanf (IEEE 1364-2005 clause 17.2.4.3), and memory files (17.2.9)."""

from __future__ import annotations

import re
from collections.abc import Iterator

from obento.core import values as v
from obento.core.decimals import from_decimal
from obento.core.values import Word

_BITS = {"b": 1, "o": 3, "h": 4, "x": 4}
_TOKEN = {
    "d": re.compile(r"[+-]?[0-9_]+|[xXzZ?]"), "b": re.compile(r"[01xXzZ?_]+"), "o": re.compile(r"[0-7xXzZ?_]+"),
    "h": re.compile(r"[0-9a-fA-FxXzZ?_]+"), "x": re.compile(r"[0-9a-fA-FxXzZ?_]+"), "s": re.compile(r"\S+"),
    "f": re.compile(r"[+-]?[0-9]*\.?[0-9]+(?:[eE][+-]?[0-9]+)?"), "t": re.compile(r"[0-9]+"),
}  # fmt: skip
_TOKEN["e"] = _TOKEN["g"] = _TOKEN["f"]
_SPACE = re.compile(r"\s*")


def digits_to_word(text: str, bits: int) -> tuple[Word, int]:
    """Digits of a base of 2, 8 or 16 with x and z, and how wide they are."""
    one = zero = 0
    full = (1 << bits) - 1
    width = 0
    for d in text.lower():
        if d == "_":
            continue
        a, b = (0, 0) if d == "x" else (full, full) if d in "z?" else (int(d, 16), int(d, 16) ^ full)
        one, zero = one << bits | a, zero << bits | b
        width += bits
    return (one, zero), width


def scan(text: str, at: int, form: str, widths: list[int], reals: list[bool]) -> tuple[int, list[Word | float], int]:
    """Match `text` from `at` against a format. Returns how many items were taken (-1: the text was at its end), their
    values, and where reading stopped. `widths` and `reals` describe the places to be filled."""
    found: list[Word | float] = []
    if not text[at:].strip():
        return -1, found, len(text)
    i = 0
    while i < len(form):
        c = form[i]
        if c.isspace():
            at = _SPACE.match(text, at).end()  # type: ignore[union-attr]
            i += 1
        elif c == "%":
            m = re.compile(r"%(\*?)(\d*)([a-zA-Z%])").match(form, i)
            if m is None:
                break
            i = m.end()
            taken = _item(text, at, m, widths, reals, len(found))
            if taken is None:
                break
            at, value = taken
            if value is not None and not m[1]:
                found.append(value)
        elif at < len(text) and text[at] == c:
            at += 1
            i += 1
        else:
            break
    return len(found), found, at


def _item(
    text: str, at: int, m: re.Match[str], widths: list[int], reals: list[bool], index: int
) -> tuple[int, Word | float | None] | None:
    letter = m[3].lower()
    if letter == "%":
        return (at + 1, None) if text[at : at + 1] == "%" else None
    if letter == "c":
        return (at + 1, v.word(ord(text[at]) & 255, 8)) if at < len(text) else None
    pattern = _TOKEN.get(letter)
    if pattern is None:
        return None
    at = _SPACE.match(text, at).end()  # type: ignore[union-attr]
    hit = pattern.match(text, at)
    if hit is None or (not m[1] and index >= len(widths)):
        return None
    word = hit.group()[: int(m[2])] if m[2] else hit.group()
    width = widths[index] if index < len(widths) else 64
    value: Word | float
    if letter in "efg" or (letter in "dt" and index < len(reals) and reals[index]):
        value = float(word)
    elif letter in _BITS:
        value = digits_to_word(word, _BITS[letter])[0]
    elif letter == "s":
        value = v.word(int.from_bytes(word.encode("latin-1", "replace"), "big"), width)
    elif word[0] in "xX":
        value = v.unknown(width)
    elif word[0] in "zZ?":
        value = v.floating(width)
    else:
        value = v.word(from_decimal(word.replace("_", "")), width)
    return at + len(word), value


_MEMORY_TOKEN = re.compile(r"\s+|//[^\n]*|/\*.*?\*/|@([0-9a-fA-F]+)|([0-9a-fA-FxXzZ?_]+)", re.DOTALL)


class BadMemoryFile(Exception):
    """Text that cannot stand in a memory file; its line."""

    def __init__(self, text: str, line: int) -> None:
        super().__init__(text)
        self.text = text
        self.line = line


def memory_words(text: str, base: str) -> Iterator[tuple[int | None, Word, int]]:
    """The words of a $readmemb (`base` b) or $readmemh (h) file: (address jumped to or None, word, its width).

    Raises
    ------
    BadMemoryFile
    """
    at = 0
    jump: int | None = None
    while at < len(text):
        m = _MEMORY_TOKEN.match(text, at)
        if m is None or (base == "b" and m[2] and re.search("[2-9a-fA-F]", m[2])):
            raise BadMemoryFile(text[at : at + 20].split("\n")[0], text.count("\n", 0, at) + 1)
        at = m.end()
        if m[1]:
            jump = int(m[1], 16)
        elif m[2]:
            word, width = digits_to_word(m[2], _BITS[base])
            yield jump, word, width
            jump = None
