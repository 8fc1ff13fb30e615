"""What a value is made of, for those who print it as an assignment pattern (IEEE 1800-2017 clause 21.2.1.6)."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import cast

from obento.core import values as v
from obento.core.decimals import to_decimal
from obento.core.ir.collections import Collection
from obento.core.ir.doubles import from_bits
from obento.core.ir.texts import from_digits
from obento.core.values import Word


@dataclass(frozen=True, slots=True)
class Digits:
    """A number of so many digits; `names` where it is one of an enumeration."""

    width: int
    signed: bool
    names: Mapping[int, str]


@dataclass(frozen=True, slots=True)
class Members:
    """A structure: each member with its name and the digit it begins at."""

    parts: tuple[tuple[str, int, int, Layout], ...]


@dataclass(frozen=True, slots=True)
class Elements:
    """An array: the digits that its elements begin at, from the left one on."""

    lows: tuple[int, ...]
    width: int
    of: Layout


@dataclass(frozen=True, slots=True)
class InCollection:
    """A queue, a dynamic array or a map."""

    of: Layout


@dataclass(frozen=True, slots=True)
class Plain:
    """A string or a real number."""


@dataclass(frozen=True, slots=True)
class Kept:
    """A string or a real number that is a member of a structure."""

    is_text: bool


Layout = Digits | Members | Elements | InCollection | Plain | Kept


def pattern(layout: Layout, value: object) -> str:
    """A value as an assignment pattern."""
    match layout:
        case Plain():
            return f'"{value}"' if isinstance(value, str) else f"{value:g}"
        case Kept():
            word = cast(Word, value)
            return pattern(Plain(), from_digits(word) if layout.is_text else from_bits(word))
        case Members():
            return _in_braces(
                f"{name}:{_digits_of(part, value, low, width)}" for name, low, width, part in layout.parts
            )
        case Elements():
            return _in_braces(_digits_of(layout.of, value, low, layout.width) for low in layout.lows)
        case InCollection():
            assert isinstance(value, Collection)
            shown = [(key, pattern(layout.of, e)) for key, e in value.elements()]
            if value.type.kind != "map":
                return _in_braces(text for _, text in shown)
            return _in_braces(f'"{key}":{text}' if isinstance(key, str) else f"{key}:{text}" for key, text in shown)
        case Digits():
            return _number(layout, cast(Word, value))


def _digits_of(layout: Layout, value: object, low: int, width: int) -> str:
    return pattern(layout, v.select(cast(Word, value), 0, low, width))


def _in_braces(parts: Iterable[str]) -> str:
    return "'{" + ", ".join(parts) + "}"


def _number(of: Digits, word: Word) -> str:
    if not v.is_known(word, of.width):
        full = v.ones(of.width)
        return "z" if word == (full, full) else "x" if word == (0, 0) else f"'b{v.to_digits(word, of.width)}"
    if word[0] in of.names:
        return of.names[word[0]]
    return to_decimal(v.signed_value(word[0], of.width) if of.signed else word[0])
