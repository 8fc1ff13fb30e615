"""Signals with strengths, and what several of them make of one wire (IEEE 1364-2005 clauses 7.9 to 7.12).

A driver's bit is a stretch of the scale from -7 (supply 0) over 0 (high impedance) to +7 (supply 1): a known value is
one point, an unknown one the stretch between its two strengths. The stronger signal wins; equal strengths of unlike
value, and stretches that overlap, leave a stretch behind."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.values import Word

Stretch = tuple[int, int]

_WIRED = frozenset(["wand", "triand", "wor", "trior"])
_PULL = {"tri0": (-5, -5), "tri1": (5, 5)}


_NAMES = {7: "Su", 6: "St", 5: "Pu", 4: "La", 3: "We", 2: "Me", 1: "Sm"}


def shown(level: Stretch) -> str:
    """A strength and value as %v writes them (17.1.1.5): the name of the strength, or the numbers of the strengths
    that it lies between, and the value."""
    low, high = level
    if low == high:
        return "HiZ" if not low else f"{_NAMES[abs(low)]}{int(low > 0)}"
    if low == 0:
        return f"{_NAMES[high]}H"
    if high == 0:
        return f"{_NAMES[-low]}L"
    if low > 0 or high < 0:
        return f"{max(abs(low), abs(high))}{min(abs(low), abs(high))}{int(low > 0)}"
    return f"{_NAMES[high]}X" if high == -low else f"{-low}{high}X"


def stretch(one: int, zero: int, strengths: tuple[int, int]) -> Stretch:
    """A driver's digit with the strengths of its 0 and 1."""
    return _stretch(one, zero, strengths)


def _stretch(one: int, zero: int, strengths: tuple[int, int]) -> Stretch:
    s0, s1 = strengths
    if one and zero:
        return 0, 0
    if one:
        return s1, s1
    if zero:
        return -s0, -s0
    return -s0, s1


def combine(a: Stretch, b: Stretch) -> Stretch:
    """Two signals on one wire (7.10.1 to 7.10.3): each level of one survives where the other may be no stronger."""
    low = min(_meet(a[0], b[0]), _meet(a[0], b[1]), _meet(a[1], b[0]), _meet(a[1], b[1]), key=lambda s: s[0])[0]
    high = max(_meet(a[0], b[0]), _meet(a[0], b[1]), _meet(a[1], b[0]), _meet(a[1], b[1]), key=lambda s: s[1])[1]
    return low, high


def _meet(a: int, b: int) -> Stretch:
    """Two unambiguous signals."""
    if abs(a) != abs(b):
        stronger = a if abs(a) > abs(b) else b
        return stronger, stronger
    return min(a, b), max(a, b)


def resolve(
    net: str, words: Sequence[Word], might: Sequence[Word | None], strengths: Sequence[tuple[int, int]], width: int
) -> Word:
    """The word of a net of kind `net` under its drivers (see `nodes.Resolve`)."""
    one = zero = 0
    for i in range(width):
        bits = [(w[0] >> i & 1, w[1] >> i & 1) for w in words]
        maybe = [(1, 1) if m is None else (m[0] >> i & 1, m[1] >> i & 1) for m in might]
        a, b = _bit(net, bits, maybe, strengths)
        one |= a << i
        zero |= b << i
    return one, zero


def _bit(
    net: str, bits: list[tuple[int, int]], maybe: list[tuple[int, int]], strengths: Sequence[tuple[int, int]]
) -> tuple[int, int]:
    if net in _WIRED:
        return _wired(net in ("wand", "triand"), bits)
    low, high = level_of(net, bits, maybe, strengths)
    if low > 0:
        return 1, 0
    if high < 0:
        return 0, 1
    return (1, 1) if low == high == 0 else (0, 0)


def level_of(
    net: str, bits: list[tuple[int, int]], maybe: list[tuple[int, int]], strengths: Sequence[tuple[int, int]]
) -> Stretch:
    """What the drivers of one digit make of it, with its strength (see `nodes.Resolve`)."""
    level = _PULL.get(net, (0, 0))
    for bit, other, strength in zip(bits, maybe, strengths, strict=True):
        if other == (1, 1):
            own = _stretch(*bit, strength)
        else:
            low, high = _stretch(*other, strength)
            own = min(low, 0), max(high, 0)
        level = combine(level, own)
    return level


def _wired(is_and: bool, bits: list[tuple[int, int]]) -> tuple[int, int]:
    """Tables 7-2 and 7-3: the dominant value wins, z yields, anything else that differs is x."""
    values = [b for b in bits if b != (1, 1)]
    if not values:
        return 1, 1
    dominant = (0, 1) if is_and else (1, 0)
    if dominant in values:
        return dominant
    return values[0] if all(v == values[0] for v in values) else (0, 0)
