"""Conditions as people say them: words that are equal, less or more than each other, inputs that differ from each other
or from what others make, an odd number of ones. Each is held against every case before it is said."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial
from itertools import combinations, product

from obento.core.sentences.said import any_of, every, say
from obento.core.spec.cases import Cases
from obento.core.spec.model import Spec, SpecPort

_MOST_BITS = 10
"""Among more input bits nothing is looked for but relations of whole words."""
_MOST_FACTORS = 3
_FEWEST_PARITY = 3

Relation = tuple[Callable[[], str], int]
"""What says it, and the cases in which it holds; of thousands that are tried one is said."""


@dataclass(frozen=True, slots=True)
class Bit:
    """An input bit: what it is called, and its plane."""

    name: str
    plane: int


def relation(spec: Spec, cases: Cases, failing: int, right: int) -> tuple[str, int]:
    """The first relation that holds in every failing case and in no right one, with the cases in which it holds; empty
    where there is none.

    Parameters
    ----------
    failing, right
        Planes over the cases; in all others anything may hold.
    """
    for words, plane in _relations(spec, cases):
        if not plane & right and not failing & ~plane:
            return words(), plane
    return "", 0


def _relations(spec: Spec, cases: Cases) -> Iterator[Relation]:
    """Relations, the plainest first."""
    yield from _of_words(spec, cases)
    bits = _bits(spec, cases)
    if len(bits) > _MOST_BITS:
        return
    full = cases.full
    for a, b in combinations(bits, 2):
        yield partial(say, "differs", a=a.name, b=b.name), a.plane ^ b.plane
        yield partial(say, "equals", a=a.name, b=b.name), a.plane ^ b.plane ^ full
    for count in range(_FEWEST_PARITY, len(bits) + 1):
        for some in combinations(bits, count):
            odd = 0
            for bit in some:
                odd ^= bit.plane
            names = [bit.name for bit in some]
            yield partial(say, "odd-number", names=names), odd
            yield partial(say, "even-number", names=names), odd ^ full
    for factors in range(2, _MOST_FACTORS + 1):
        for one in bits:
            others = [bit for bit in bits if bit is not one]
            for some in combinations(others, factors):
                for words, plane in _made_of(some, full):
                    yield partial(_of_group, "differs", one.name, words), one.plane ^ plane
                    yield partial(_of_group, "equals", one.name, words), one.plane ^ plane ^ full


def _of_group(key: str, one: str, words: Callable[[], str]) -> str:
    return say(key, a=one, b=say("grouped", part=words()))


def _made_of(bits: Sequence[Bit], full: int) -> Iterator[Relation]:
    """What some bits make by `and` or `or`, each as it is or inverted."""
    for levels in product((1, 0), repeat=len(bits)):
        all_ones, some_ones = full, 0
        for bit, level in zip(bits, levels, strict=True):
            plane = bit.plane if level else bit.plane ^ full
            all_ones &= plane
            some_ones |= plane
        yield partial(_made_words, every, bits, levels), all_ones
        yield partial(_made_words, any_of, bits, levels), some_ones


def _made_words(join: Callable[[list[str]], str], bits: Sequence[Bit], levels: Sequence[int]) -> str:
    return join([bit.name if level else say("not", name=bit.name) for bit, level in zip(bits, levels, strict=True)])


def _bits(spec: Spec, cases: Cases) -> list[Bit]:
    found: list[Bit] = []
    first = 0
    for port in spec.inputs:
        found += [Bit(port.bit_word(i), cases.one[first + i]) for i in range(port.width - 1, -1, -1)]
        first += port.width
    return found


def _of_words(spec: Spec, cases: Cases) -> Iterator[Relation]:
    """Two inputs of one width against each other, as numbers in the way both are taken."""
    planes: dict[str, tuple[int, ...]] = {}
    first = 0
    for port in spec.inputs:
        planes[port.name] = cases.one[first : first + port.width]
        first += port.width
    wide = [p for p in spec.inputs if p.width > 1]
    for a, b in combinations(wide, 2):
        if a.width == b.width and a.signed == b.signed:
            yield from _compared(a, b, planes[a.name], planes[b.name], cases.full)


def _compared(a: SpecPort, b: SpecPort, x: Sequence[int], y: Sequence[int], full: int) -> Iterator[Relation]:
    differ = less = 0
    for i, (p, q) in enumerate(zip(x, y, strict=True)):  # the highest digit that differs decides
        if a.signed and i == a.width - 1:
            p, q = q, p
        differ |= p ^ q
        less = (less & ~(p ^ q)) | (~p & q & full)
    yield partial(say, "differs", a=a.name, b=b.name), differ
    yield partial(say, "equals", a=a.name, b=b.name), differ ^ full
    yield partial(say, "less", a=a.name, b=b.name), less
    yield partial(say, "at-least", a=a.name, b=b.name), less ^ full
    yield partial(say, "at-most", a=a.name, b=b.name), less | differ ^ full
    yield partial(say, "more", a=a.name, b=b.name), full ^ (less | differ ^ full)
