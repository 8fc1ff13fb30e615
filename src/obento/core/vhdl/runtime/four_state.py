"""The border between VHDL values and four-state words: how wide each type is there, and how values cross."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from obento.core.values import Word, ones, signed_value
from obento.core.vhdl.model import nine_values as logic
from obento.core.vhdl.model.types import ArrayType, EnumType, IntType, RangeX, Subtype, default_value, scalar_bounds
from obento.core.vhdl.model.values import Arr


def width_of(s: Subtype) -> int:
    """Digits of a value as a word; 0 for what has no such form."""
    if isinstance(s.type, EnumType):
        return 1 if s.type.name in ("std_ulogic", "bit", "boolean") else max(1, (len(s.type.literals) - 1).bit_length())
    if isinstance(s.type, IntType):
        bounds = scalar_bounds(s)
        if bounds is None:
            return 0
        low, high = bounds
        return (
            max(1, int(high).bit_length()) if low >= 0 else max(int(-low - 1).bit_length(), int(high).bit_length()) + 1
        )
    if isinstance(s.type, ArrayType) and len(s.type.indices) == 1:
        size = s.length()
        each = width_of(s.element_subtype)
        return size * each if size is not None and size else 0
    return 0


def is_signed(s: Subtype) -> bool:
    """Whether a value has a sign as digits."""
    if isinstance(s.type, IntType):
        bounds = scalar_bounds(s)
        return bounds is not None and bounds[0] < 0
    return s.type.name == "signed"


def to_word(s: Subtype) -> Callable[[Any], Word]:
    """A function from values to words."""
    t = s.type
    width = width_of(s)
    if t.name == "std_ulogic":
        return lambda v: logic.word_of(bytes((v,)))
    if isinstance(t, EnumType | IntType):
        full = ones(width)
        return lambda v: (v & full, ~v & full)
    assert isinstance(t, ArrayType)
    element = t.element.type
    if element.name == "std_ulogic":
        return lambda a: logic.word_of(a.v)
    each, inner = width_of(s.element_subtype), to_word(s.element_subtype)

    def join(a: Arr) -> Word:
        one = zero = 0
        for x in a.v:
            p, q = inner(x)
            one, zero = one << each | p, zero << each | q
        return one, zero

    return join


def from_word(s: Subtype) -> Callable[[Word], Any]:
    """A function from words to values; where a word is unknown, types without an unknown value take their first one."""
    t = s.type
    width = width_of(s)
    if t.name == "std_ulogic":
        return lambda w: logic.vector_of(w, 1)[0]
    if isinstance(t, EnumType | IntType):
        first = default_value(s)
        bounds = scalar_bounds(s) or (0, 0)
        negative = is_signed(s)

        def number(w: Word) -> Any:
            one, zero = w
            if one ^ zero != ones(width):
                return first
            value = signed_value(one, width) if negative else one
            return min(max(value, bounds[0]), bounds[1])

        return number
    assert isinstance(t, ArrayType) and s.ranges is not None
    known = s.ranges[0].known()
    assert known is not None
    left, step = known[0], -1 if known[2] else 1
    if t.element.type.name == "std_ulogic":
        return lambda w: Arr(left, step, logic.vector_of(w, width))
    each, inner, size = width_of(s.element_subtype), from_word(s.element_subtype), s.length() or 0

    def split(w: Word) -> Arr:
        full = ones(each)
        parts = [inner((w[0] >> i * each & full, w[1] >> i * each & full)) for i in range(size - 1, -1, -1)]
        return Arr(left, step, bytes(parts) if t.packed else tuple(parts))

    return split


def bounds_shown(r: RangeX | None, width: int) -> tuple[int, int]:
    """Left and right bound as a waveform names them."""
    known = r.known() if r is not None else None
    return (known[0], known[1]) if known is not None else (width - 1, 0)
