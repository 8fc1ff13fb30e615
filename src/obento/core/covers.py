"""Sets of points as small sums of products: truth tables as whole numbers, prime products, covers.

All prime implicants are found by merging (Quine 1955, McCluskey 1956), or where there are too many points for that,
single cubes are grown, the largest first."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from obento.core.planes import count_plane


@dataclass(frozen=True, slots=True)
class Product:
    """`care` are the input bits that matter, `value` what they must be (bit 0 is the last input's rightmost)."""

    care: int
    value: int

    def covers(self, point: int) -> bool:
        """Whether a point lies in the product."""
        return point & self.care == self.value


class Cubes:
    """Sets of points as truth tables: one whole number with a digit for each of the 2**bits points."""

    def __init__(self, bits: int) -> None:
        self.bits = bits
        size = 1 << bits
        self.full = (1 << size) - 1
        self._ones = [count_plane(i, size) for i in range(bits)]

    def are_in_order(self, planes: Sequence[int], count: int) -> bool:
        """Whether cases over these input planes (leftmost first) are all points, one after the other."""
        return count == 1 << self.bits and list(planes[::-1]) == self._ones

    def table(self, points: Iterable[int]) -> int:
        """A set of points as a truth table."""
        flags = bytearray(b"0" * (1 << self.bits))
        for point in points:
            flags[-1 - point] = 49
        return int(flags.decode(), 2)

    def of(self, care: int, value: int) -> int:
        """The points that a product covers."""
        result = self.full
        for i, plane in enumerate(self._ones):
            if care >> i & 1:
                result &= plane if value >> i & 1 else plane ^ self.full
        return result


def exact_primes(on: set[int], off: set[int], bits: int) -> list[Product]:
    """All primes by merging."""
    free_or_on = set(range(1 << bits)) - off
    full = (1 << bits) - 1
    level = {Product(full, p) for p in free_or_on}
    primes: set[Product] = set()
    while level:
        merged: set[Product] = set()
        used: set[Product] = set()
        for p in level:
            rest = p.care
            while rest:
                bit = rest & -rest
                rest ^= bit
                other = Product(p.care, p.value ^ bit)
                if other in level:
                    used.add(p)
                    merged.add(Product(p.care ^ bit, p.value & ~bit))
        primes |= level - used
        level = merged
    return [p for p in primes if any(p.covers(q) for q in on)]


def grown_primes(cubes: Cubes, on: int, off: int, most: int) -> list[Product]:
    """Cubes grown from failing points, bit by bit in two orders; enough primes for a short cover."""
    rest = on
    found: list[Product] = []
    while rest and len(found) <= most:
        seed = (rest & -rest).bit_length() - 1
        grown = [_grow(cubes, seed, off, order) for order in (range(cubes.bits), range(cubes.bits - 1, -1, -1))]
        best = max(grown, key=lambda p: (rest & cubes.of(p.care, p.value)).bit_count())
        found.append(best)
        rest &= ~cubes.of(best.care, best.value)
    return found


def _grow(cubes: Cubes, seed: int, off: int, order: Iterable[int]) -> Product:
    """The largest cube around a point that leaves out one bit after the other and stays clear of `off`."""
    care = (1 << cubes.bits) - 1
    for i in order:
        trial = care & ~(1 << i)
        if not cubes.of(trial, seed) & off:
            care = trial
    return Product(care, seed & care)


def cover(cubes: Cubes, on: int, primes: list[Product]) -> list[Product]:
    """Essential products first, then always the one that covers most; ties go to fewer literals, then to order."""
    primes = sorted(primes, key=lambda p: (p.care.bit_count(), p.care, p.value))
    covers = {p: cubes.of(p.care, p.value) & on for p in primes}
    once = twice = 0
    for covered in covers.values():
        twice |= once & covered
        once |= covered
    chosen = [p for p in primes if covers[p] & ~twice]
    rest = on
    for p in chosen:
        rest &= ~covers[p]
    while rest:
        best = max(primes, key=lambda p: (covers[p] & rest).bit_count())
        if not covers[best] & rest:
            return []  # growing stopped early: these do not cover everything, and a half-truth is no condition
        chosen.append(best)
        rest &= ~covers[best]
    return chosen
