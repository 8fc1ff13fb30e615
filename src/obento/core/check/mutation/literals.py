"""Numbers as a text writes them: what they are, and another one written alike."""

from __future__ import annotations

import re

_VERILOG = re.compile(r"(\d*)\s*'([sS]?)([bBoOdDhH])\s*([0-9a-fA-F_]+)")
_WIRING = re.compile(r"(\d+)()([bdh])([0-9a-fA-F_]+)")
_VHDL_BITS = re.compile(r'([xXbBoO]?)"([0-9a-fA-F_]+)"')
_BASES = {"b": 2, "o": 8, "d": 10, "h": 16, "x": 16}
_DIGIT_BITS = {"b": 1, "o": 3, "h": 4, "x": 4}


def value_of(word: str, language: str) -> int | None:
    """The number that a word stands for; None for anything else, and for digits that are unknown."""
    parts = _parts(word, language)
    return parts[0] if parts is not None else None


def rewritten(word: str, value: int, language: str) -> str | None:
    """Another number as this one is written; None where it does not fit in there."""
    parts = _parts(word, language)
    if parts is None or value < 0:
        return None
    _, width, base, head, tail = parts
    if width is not None and value >> width:
        return None
    if base == "d":
        return f"{head}{value}{tail}"
    digits = {"b": format(value, "b"), "o": format(value, "o")}.get(base, format(value, "x"))
    count = len(re.sub("_", "", word[len(head) : len(word) - len(tail)]))
    return f"{head}{digits.zfill(count)}{tail}"


def _parts(word: str, language: str) -> tuple[int, int | None, str, str, str] | None:
    """Value, width (None where it is as wide as it needs), base, and what stands before and behind the digits."""
    if word.replace("_", "").isdecimal():
        return int(word.replace("_", "")), None, "d", "", ""
    if language == "vhdl":
        if word in ("'0'", "'1'"):
            return int(word[1]), 1, "b", "'", "'"
        found = _VHDL_BITS.fullmatch(word)
        if found is None:
            return None
        base, digits = found[1].lower() or "b", found[2].replace("_", "")
        value = _number(digits, base)
        return None if value is None else (value, len(digits) * _DIGIT_BITS[base], base, word[: found.end(1) + 1], '"')
    found = (_WIRING if language == "wiring" else _VERILOG).fullmatch(word)
    if found is None:
        return None
    base = found[3].lower()
    value = _number(found[4].replace("_", ""), base)
    return None if value is None else (value, int(found[1]) if found[1] else None, base, word[: found.start(4)], "")


def _number(digits: str, base: str) -> int | None:
    try:
        return int(digits, _BASES[base])
    except ValueError:
        return None
