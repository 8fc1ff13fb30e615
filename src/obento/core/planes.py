"""Planes: something that is so or not in each of many cases, as one whole number with a binary digit for each case."""

from __future__ import annotations

import sys
from collections.abc import Sequence
from itertools import compress

_FEW = 16
"""So many ones are found quicker one by one."""


def count_plane(digit: int, lanes: int) -> int:
    """The plane of one binary digit of the lane number, for lanes 0, 1, 2, ...: 0101..., 0011..., as one whole
    number."""
    half = 1 << digit
    plane = ((1 << half) - 1) << half
    size = 2 * half
    while size < lanes:
        plane |= plane << size
        size *= 2
    return plane & ((1 << lanes) - 1)


def plane_digits(plane: int, count: int) -> str:
    """A plane as a text of `count` digits, case 0 first."""
    return format(plane, f"0{count}b")[::-1]


_TO_FLAGS = bytes.maketrans(b"01", b"\0\1")
_SIZES = {1: "B", 2: "H", 4: "I", 8: "Q"}
_WIDEST = 64


def case_flags(plane: int, count: int) -> bytes:
    """A plane as one byte for each case, 0 or 1."""
    return plane_digits(plane, count).encode().translate(_TO_FLAGS)


def spelled(planes: Sequence[int], count: int) -> Sequence[int]:
    """The number that planes (leftmost digit first) spell in each case."""
    digits = planes[::-1]
    if len(digits) > _WIDEST:
        low, high = spelled(digits[_WIDEST - 1 :: -1], count), spelled(digits[: _WIDEST - 1 : -1], count)
        return [b << _WIDEST | a for a, b in zip(low, high, strict=True)]
    size = next(size for size in _SIZES if 8 * size >= len(digits))
    raw = bytearray(size * count)
    for n in range(size):
        total = 0  # each case is a byte of one whole number, so that eight planes are put together at once
        for i, plane in enumerate(digits[8 * n : 8 * n + 8]):
            total |= int.from_bytes(case_flags(plane, count), "little") << i
        raw[n if sys.byteorder == "little" else size - 1 - n :: size] = total.to_bytes(count, "little")
    return memoryview(raw).cast(_SIZES[size])  # type: ignore[call-overload, no-any-return]


def picked(plane: int, count: int, chosen: Sequence[int]) -> int:
    """A plane over `count` cases as one over some of them, in the order given."""
    if len(chosen) <= _FEW:
        return sum((plane >> case & 1) << n for n, case in enumerate(chosen))
    if len(chosen) == count and chosen == range(count):
        return plane
    digits = plane_digits(plane, count)
    return int("".join([digits[case] for case in reversed(chosen)]), 2)


def set_bits(plane: int) -> list[int]:
    """The numbers of the cases in a plane, in order."""
    if plane.bit_count() <= _FEW:
        found = []
        while plane:
            low = plane & -plane
            found.append(low.bit_length() - 1)
            plane ^= low
        return found
    count = plane.bit_length()
    return list(compress(range(count), case_flags(plane, count)))
