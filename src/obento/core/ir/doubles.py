"""Real numbers and their 64 digits (IEEE 754 binary64; IEEE 1364-2005 clause 17.8)."""

from __future__ import annotations

import struct
from typing import cast

from obento.core import values as v
from obento.core.values import Word


def to_bits(x: float) -> int:
    """A double as the number that its 64 digits are."""
    return int.from_bytes(struct.pack(">d", x), "big")


def from_bits(a: Word) -> float:
    """The double that has these 64 digits; those that are not known read 0."""
    return cast(float, struct.unpack(">d", (a[0] & ~a[1] & v.ones(64)).to_bytes(8, "big"))[0])
