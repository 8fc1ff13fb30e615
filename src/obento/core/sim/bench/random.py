"""$random and its kin: the generator that IEEE 1364-2005 gives as a listing in clause 17.9.3, so that runs repeat
everywhere."""

from __future__ import annotations

import math
import struct
from collections.abc import Callable

MOST = 2147483647
LEAST = -2147483648


class Generator:
    """A seed and the numbers drawn from it."""

    def __init__(self, seed: int = 0) -> None:
        self.seed = _signed(seed)

    def uniform(self, start: float, end: float) -> float:
        """A real number between two (the listing's `uniform`)."""
        if self.seed == 0:
            self.seed = 259341593
        a, b = (0.0, 2147483647.0) if start >= end else (float(start), float(end))
        self.seed = _signed(69069 * self.seed + 1)
        c: float = struct.unpack("<f", struct.pack("<I", ((self.seed & 0xFFFFFFFF) >> 9) | 0x3F800000))[0]
        c = c + c * 0.00000011920928955078125
        return (b - a) * (c - 1.0) + a

    def between(self, start: int, end: int) -> int:
        """rtl_dist_uniform: a whole number from `start` to `end`."""
        if start >= end:
            return start
        if end != MOST:
            i = _floor(self.uniform(start, end + 1))
            return min(max(i, start), end)
        if start != LEAST:
            i = _floor(self.uniform(start - 1, end) + 1.0)
            return min(max(i, start), end)
        r = (self.uniform(start, end) + 2147483648.0) / 4294967295.0
        return _floor(r * 4294967296.0 - 2147483648.0)

    def number(self) -> int:
        """$random: any 32-bit signed number."""
        return self.between(LEAST, MOST)

    def normal(self, mean: int, deviation: int) -> float:
        """A normally distributed number (the listing's `normal`)."""
        s = 1.0
        a = 0.0
        while s >= 1.0 or s == 0.0:
            a, b = self.uniform(-1, 1), self.uniform(-1, 1)
            s = a * a + b * b
        return a * math.sqrt(-2.0 * math.log(s) / s) * deviation + mean

    def exponential(self, mean: int) -> float:
        """An exponentially distributed number (the listing's `exponential`)."""
        n = self.uniform(0, 1)
        return -math.log(n) * mean if n else n

    def poisson(self, mean: int) -> float:
        """A number of events of a Poisson process (the listing's `poisson`)."""
        n = 0
        p = math.exp(-float(mean))
        q = self.uniform(0, 1)
        while p < q:
            n += 1
            q *= self.uniform(0, 1)
        return n

    def chi_square(self, degrees: int) -> float:
        """A number of the chi-square distribution (the listing's `chi_square`)."""
        x = self.normal(0, 1) ** 2 if degrees % 2 else 0.0
        for _ in range(2, degrees + 1, 2):
            x += 2 * self.exponential(1)
        return x

    def student(self, degrees: int) -> float:
        """A number of Student's distribution (the listing's `t`)."""
        root = math.sqrt(self.chi_square(degrees) / degrees)
        return self.normal(0, 1) / root

    def erlangian(self, stages: int, mean: int) -> float:
        """A number of the Erlang distribution (the listing's `erlangian`)."""
        x = 1.0
        for _ in range(stages):
            x *= self.uniform(0, 1)
        return -mean * math.log(x) / stages


def _signed(x: int) -> int:
    x &= 0xFFFFFFFF
    return x - (1 << 32) if x >> 31 else x


def _floor(r: float) -> int:
    return int(r) if r >= 0 else int(r - 1)


def _rounded(r: float) -> int:
    return int(r + 0.5) if r >= 0 else -int(-r + 0.5)


DISTRIBUTIONS: dict[str, Callable[..., int]] = {
    "$dist_uniform": lambda g, start, end: g.between(start, end),
    "$dist_normal": lambda g, mean, deviation: _rounded(g.normal(mean, deviation)),
    "$dist_exponential": lambda g, mean: _rounded(g.exponential(mean)) if mean > 0 else 0,
    "$dist_poisson": lambda g, mean: int(g.poisson(mean)) if mean > 0 else 0,
    "$dist_chi_square": lambda g, degrees: _rounded(g.chi_square(degrees)) if degrees > 0 else 0,
    "$dist_t": lambda g, degrees: _rounded(g.student(degrees)) if degrees > 0 else 0,
    "$dist_erlang": lambda g, stages, mean: _rounded(g.erlangian(stages, mean)) if stages > 0 else 0,
}
"""Distributions by the name of their system function (17.9.2)."""
