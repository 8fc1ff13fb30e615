"""The cases of a spec, as planes: one whole number for each input bit, one binary digit for each case.

A case is known by its inputs; the same inputs never stand twice. In clocked labs the cases are the steps of sequences,
known by their sequence and number (`Stimulus`)."""

from __future__ import annotations

import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from obento.core import values
from obento.core.planes import count_plane, picked, spelled
from obento.core.spec.model import Row, Spec, SpecPort
from obento.core.spec.stimulus import Stimulus
from obento.core.values import Word


@dataclass(frozen=True, slots=True)
class Cases:
    """`one[i]` and `zero[i]` are the planes of input bit `i`; bits are numbered port by port, bit 0 of each first.

    `labels` name cases that have no inputs: the checks of a bench. With a `stimulus` the cases are steps; the planes
    are the inputs when outputs are sampled, the clock's too."""

    count: int
    one: tuple[int, ...]
    zero: tuple[int, ...]
    stimulus: Stimulus | None = None
    labels: tuple[str, ...] = ()

    @property
    def full(self) -> int:
        """The plane with every case in it."""
        return values.ones(self.count)

    @property
    def all_known(self) -> bool:
        """Whether every input is 0 or 1 in every case."""
        return all(a ^ b == self.full for a, b in zip(self.one, self.zero, strict=True))

    def word(self, index: int, first: int, width: int) -> Word:
        """The value of a port (its first bit and width) in one case."""
        one = zero = 0
        for i in range(first + width - 1, first - 1, -1):
            one = one << 1 | (self.one[i] >> index & 1)
            zero = zero << 1 | (self.zero[i] >> index & 1)
        return one, zero


def shown_inputs(spec: Spec, cases: Cases, chosen: Sequence[int]) -> list[list[str]]:
    """What each input is in some cases, as its port shows it; of a clock what it does in these steps."""
    columns: list[list[str]] = []
    bit = 0
    for port in spec.inputs:
        if cases.stimulus is not None and spec.clock is not None and port.name == spec.clock.port:
            columns.append([cases.stimulus.actions[case] for case in chosen])
        else:
            columns.append(_shown(port, cases, bit, chosen))
        bit += port.width
    return columns


def _shown(port: SpecPort, cases: Cases, first: int, chosen: Sequence[int]) -> list[str]:
    """What an input, whose first bit this is, is in some cases."""
    bits = range(first + port.width - 1, first - 1, -1)
    one = spelled([picked(cases.one[i], cases.count, chosen) for i in bits], len(chosen))
    zero = spelled([picked(cases.zero[i], cases.count, chosen) for i in bits], len(chosen))
    words = list(zip(one, zero, strict=True))
    text_of = {word: port.show(word) for word in set(words)}
    return [text_of[word] for word in words]


def match_plane(row: Row, spec: Spec, cases: Cases) -> int:
    """The cases that a row stands for."""
    plane = cases.full
    bit = 0
    for port, cell in zip(spec.inputs, row.inputs, strict=True):
        for i in range(port.width):
            if cell.care >> i & 1:
                want_one, want_zero = cell.word[0] >> i & 1, cell.word[1] >> i & 1
                one, zero = cases.one[bit], cases.zero[bit]
                plane &= (one if want_one else one ^ cases.full) & (zero if want_zero else zero ^ cases.full)
            bit += 1
    return plane


def expand_cases(spec: Spec, most: int, most_crossed: int | None = None) -> Cases:
    """All cases of a spec in order: every combination (first port the slowest), listed rows, corners (crossed where
    these are at most `most_crossed`), random ones.

    Raises
    ------
    ValueError
        If there are more than `most`.
    """
    width = spec.input_bits
    known: dict[tuple[int, int], None] = {}
    full = values.ones(width)
    if spec.all_cases:
        if not (spec.listed or spec.corners or spec.random):
            return _exhaustive(spec)
        for n in range(1 << width):
            known[(n, n ^ full)] = None
    for row in spec.listed:
        for word in _expand_row(row, spec.inputs, most):
            known.setdefault(word)
    if spec.corners:
        for value in _corners(spec.inputs, most if most_crossed is None else most_crossed):
            known.setdefault((value, value ^ full))
    if spec.random is not None:
        source = random.Random(spec.random.seed)
        for _ in range(spec.random.count):
            value = source.getrandbits(width)
            known.setdefault((value, value ^ full))
    if len(known) > most:
        raise ValueError(f"{len(known)} cases are more than can be run (at most {most})")
    return _packed(list(known), spec.inputs)


def _exhaustive(spec: Spec) -> Cases:
    count = 1 << spec.input_bits
    full = values.ones(count)
    one: list[int] = []
    low = spec.input_bits
    for port in spec.inputs:
        low -= port.width
        one += [count_plane(low + i, count) for i in range(port.width)]
    return Cases(count, tuple(one), tuple(full ^ p for p in one))


def _packed(words: list[Word], inputs: tuple[SpecPort, ...]) -> Cases:
    """Planes from whole input words (first port leftmost)."""
    width = sum(p.width for p in inputs)
    sides: list[list[int]] = []
    for side in (0, 1):
        columns = list(zip(*(format(w[side], f"0{width}b") for w in reversed(words)), strict=True))
        planes = [int("".join(column), 2) for column in columns]
        first = 0
        ordered: list[int] = []
        for port in inputs:
            ordered += reversed(planes[first : first + port.width])
            first += port.width
        sides.append(ordered)
    return Cases(len(words), tuple(sides[0]), tuple(sides[1]))


def _expand_row(row: Row, inputs: tuple[SpecPort, ...], most: int) -> list[Word]:
    """The input words that a row stands for: both values for each `-`."""
    one = zero = care = 0
    for port, cell in zip(inputs, row.inputs, strict=True):
        one, zero, care = (
            one << port.width | cell.word[0] & cell.care,
            zero << port.width | cell.word[1] & cell.care,
            care << port.width | cell.care,
        )
    width = sum(p.width for p in inputs)
    free = [i for i in range(width) if not care >> i & 1]
    if 1 << len(free) > most:
        raise ValueError(f"the listed row with {len(free)} times `-` stands for more cases than can be run")
    words = []
    for n in range(1 << len(free)):
        a, b = one, zero
        for k, i in enumerate(free):
            if n >> k & 1:
                a |= 1 << i
            else:
                b |= 1 << i
        words.append((a, b))
    return words


def _corners(inputs: tuple[SpecPort, ...], most: int) -> list[int]:
    """0, 1, all ones, largest and smallest signed, alternating: of each port, crossed.

    Where crossed these are more than `most`: of all ports together, and of each port by itself while the others are all
    0 or all 1."""
    own = [_corners_of(port.width) for port in inputs]
    total = 1
    for values_of in own:
        total *= len(values_of)
    if total <= most:
        found = [0]
        for port, values_of in zip(inputs, own, strict=True):
            found = [f << port.width | v for f in found for v in values_of]
        return found
    return list(dict.fromkeys([*_together(inputs, own), *_alone(inputs, own)]))


def _corners_of(width: int) -> list[int]:
    full = values.ones(width)
    alternating = int(("01" * width)[:width], 2)
    return sorted({0, 1 & full, full, full >> 1, full ^ (full >> 1), alternating, full ^ alternating})


def _together(inputs: tuple[SpecPort, ...], own: list[list[int]]) -> Iterator[int]:
    """Every port at its first corner, every port at its second, and so on; the last one stands in where a port has
    fewer."""
    for i in range(max(len(values_of) for values_of in own)):
        word = 0
        for port, values_of in zip(inputs, own, strict=True):
            word = word << port.width | values_of[min(i, len(values_of) - 1)]
        yield word


def _alone(inputs: tuple[SpecPort, ...], own: list[list[int]]) -> Iterator[int]:
    """Each port at each of its corners, all others 0, then all others 1."""
    everything = values.ones(sum(port.width for port in inputs))
    for rest in (0, everything):
        low = everything.bit_length()
        for port, values_of in zip(inputs, own, strict=True):
            low -= port.width
            for value in values_of:
                yield rest & ~(values.ones(port.width) << low) | value << low
