"""The failing cases as the shortest condition on the inputs: a small sum of products.

On up to `_EXACT_BITS` inputs bits all prime implicants are found (Quine 1955, McCluskey 1956) and covered greedily with the
essential ones first; beyond, single cubes are grown from failing cases, the largest first. Cases that were not run or not
compared are free: a product may cover them.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from obento.core.spec.cases import Cases, plane_to_bits
from obento.core.spec.model import Spec, SpecPort

_EXACT_BITS = 8
_MOST_BITS = 16
_MOST_PRODUCTS = 6


@dataclass(frozen=True, slots=True)
class Product:
    """`care` are the input bits that matter, `value` what they must be (bit 0 is the last input's rightmost)."""

    care: int
    value: int

    def covers(self, point: int) -> bool:
        return point & self.care == self.value


def failing_condition(spec: Spec, cases: Cases, failing: int, free: int = 0) -> str:
    """In words, or empty when there is no short one.

    Parameters
    ----------
    failing, free
        Planes over the cases.
    """
    by_value = _by_value(spec, cases, failing)
    if by_value:
        return by_value
    products = products_of(spec, cases, failing, free)
    if not products:
        return ""
    return _sum_words(spec, products)


def _sum_words(spec: Spec, products: list[Product]) -> str:
    """`key = 1 and (level_eq = 0 or gate_shut = 0)`: what all products share stands once."""
    if len(products) == 1:
        return _words(spec, products[0])
    shared = products[0].care
    for p in products[1:]:
        shared &= p.care & ~(p.value ^ products[0].value)
    rests = [Product(p.care & ~shared, p.value & ~shared) for p in products]
    parts = [_words(spec, p) for p in rests]
    text = " or ".join(f"({part})" if " and " in part else part for part in parts)
    if not shared:
        return text
    return f"{_words(spec, Product(shared, products[0].value & shared))} and ({text})"


def _by_value(spec: Spec, cases: Cases, failing: int) -> str:
    """`depth = 5` or `depth from 3 to 6`, where the failing cases are all those with certain values of one bus."""
    first = 0
    for port in spec.inputs:
        planes = [cases.one[first + i] for i in range(port.width)]
        first += port.width
        if not 1 < port.width <= 12 or not cases.all_known:
            continue
        values = np.zeros(cases.count, dtype=np.int64)
        for i, plane in enumerate(planes):
            values |= plane_to_bits(plane, cases.count).astype(np.int64) << i
        wrong = plane_to_bits(failing, cases.count).astype(bool)
        bad = set(values[wrong].tolist())
        if not bad or bad & set(values[~wrong].tolist()) or len(bad) == len(set(values.tolist())):
            continue
        return _value_words(port, sorted(bad))
    return ""


def _value_words(port: SpecPort, bad: list[int]) -> str:
    runs: list[tuple[int, int]] = []
    for value in bad:
        if runs and value == runs[-1][1] + 1:
            runs[-1] = (runs[-1][0], value)
        else:
            runs.append((value, value))
    if len(runs) > _MOST_PRODUCTS:
        return ""
    full = (1 << port.width) - 1

    def show(value: int) -> str:
        return port.show((value, value ^ full))

    parts = [show(a) if a == b else f"{show(a)} to {show(b)}" for a, b in runs]
    return f"{port.name} = {' or '.join(parts)}"


def products_of(spec: Spec, cases: Cases, failing: int, free: int = 0) -> list[Product]:
    """The products; empty when there are too many inputs or too many products to be of use."""
    bits = spec.input_bits
    if not failing or bits > _MOST_BITS or not cases.all_known:
        return []
    on = _points(spec, cases, failing)
    off = _points(spec, cases, cases.full & ~failing & ~free)
    if not off:
        return [Product(0, 0)]
    cover = _exact(on, off, bits) if bits <= _EXACT_BITS else _grown(on, off, bits)
    return cover if len(cover) <= _MOST_PRODUCTS else []


def _points(spec: Spec, cases: Cases, plane: int) -> set[int]:
    """Input words (first port leftmost) of the cases in a plane."""
    planes: list[int] = []
    first = 0
    for port in spec.inputs:
        planes += [cases.one[first + i] for i in range(port.width - 1, -1, -1)]
        first += port.width
    wanted = np.flatnonzero(plane_to_bits(plane, cases.count))
    words = np.zeros(len(wanted), dtype=np.int64)
    for p in planes:
        words = words << 1 | plane_to_bits(p, cases.count)[wanted]
    return set(words.tolist())


def _exact(on: set[int], off: set[int], bits: int) -> list[Product]:
    """All primes by merging, then a cover."""
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
    return _cover(on, [p for p in primes if any(p.covers(q) for q in on)])


def _grown(on: set[int], off: set[int], bits: int) -> list[Product]:
    """Cubes grown from failing points, bit by bit in two orders; enough primes for a short cover."""
    full = (1 << bits) - 1
    rest = np.array(sorted(on), dtype=np.int64)
    outside = np.array(sorted(off), dtype=np.int64)
    found: list[Product] = []
    while rest.size and len(found) <= _MOST_PRODUCTS:
        seed = int(rest[0])
        best: Product | None = None
        gain = 0
        for order in (range(bits), range(bits - 1, -1, -1)):
            care = full
            for i in order:
                trial = care & ~(1 << i)
                if not np.any((outside ^ seed) & trial == 0):
                    care = trial
            product = Product(care, seed & care)
            covered = int(np.count_nonzero(rest & care == product.value))
            if covered > gain:
                best, gain = product, covered
        assert best is not None
        found.append(best)
        rest = rest[rest & best.care != best.value]
    return found if rest.size else _cover(on, found)


def _cover(on: set[int], primes: list[Product]) -> list[Product]:
    """Essential products first, then always the one that covers most; ties go to fewer literals, then to order."""
    primes = sorted(primes, key=lambda p: (p.care.bit_count(), p.care, p.value))
    covers = {p: {q for q in on if p.covers(q)} for p in primes}
    chosen: list[Product] = []
    rest = set(on)
    for point in sorted(on):
        holders = [p for p in primes if point in covers[p]]
        if len(holders) == 1 and holders[0] not in chosen:
            chosen.append(holders[0])
            rest -= covers[holders[0]]
    while rest:
        best = max(primes, key=lambda p: len(covers[p] & rest))
        chosen.append(best)
        rest -= covers[best]
    return chosen


def _words(spec: Spec, product: Product) -> str:
    """`key = 1 and level_eq = 0`; a bus with every bit fixed as one value."""
    if product.care == 0:
        return "always"
    parts: list[str] = []
    low = spec.input_bits
    for port in spec.inputs:
        low -= port.width
        full = (1 << port.width) - 1
        care, value = product.care >> low & full, product.value >> low & full
        if care == full:
            parts.append(f"{port.name} = {port.show((value, value ^ full))}")
            continue
        for i in range(port.width - 1, -1, -1):
            if care >> i & 1:
                parts.append(f"{port.bit_name(i)} = {value >> i & 1}")
    return " and ".join(parts)
