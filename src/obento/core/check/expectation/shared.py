"""Two versions of a spec beside each other: the cases that stand in both, and where they expect something else."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from obento.core.check.expectation.model import Expectation, Key, Planes
from obento.core.planes import spelled


@dataclass(frozen=True, slots=True)
class SharedCases:
    """`pairs` are the cases that stand in both, by their numbers in the first and in the second; `alike` those of which
    both expect the same of every output. `outputs` are the bits that both have."""

    pairs: tuple[tuple[int, int], ...]
    alike: tuple[tuple[int, int], ...]
    outputs: tuple[Key, ...]


def shared_cases(first: Expectation, second: Expectation) -> SharedCases:
    """The cases of two specs that are one and the same: equal inputs or, with a clock, equal inputs and edges since
    power-up. There are none where the inputs are not the same ones."""
    outputs = tuple(key for key in first.bits if key in second.bits)
    if _ports(first) != _ports(second):
        return SharedCases((), (), outputs)
    known: dict[tuple[int, str], int] = {}
    place = {name: case for case, name in enumerate(_names(first, known))}
    pairs = tuple((place[name], case) for case, name in enumerate(_names(second, known)) if name in place)
    if first.bits.keys() != second.bits.keys():
        return SharedCases(pairs, (), outputs)
    alike = tuple((a, b) for a, b in pairs if all(_same(first.bits[k], a, second.bits[k], b) for k in outputs))
    return SharedCases(pairs, alike, outputs)


def behave_alike(
    shared: SharedCases, first: Mapping[Key, tuple[int, int]], second: Mapping[Key, tuple[int, int]]
) -> bool:
    """Whether two hand-ins, one seen under each spec, show the same in every case of which both expect the same."""
    return all(
        first[key][half] >> a & 1 == second[key][half] >> b & 1
        for a, b in shared.alike
        for key in shared.outputs
        for half in (0, 1)
    )


def _ports(of: Expectation) -> list[tuple[str, int, bool]]:
    """What makes inputs the same ones; how they are written does not."""
    clock = of.spec.clock
    return [(p.name, p.width, clock is not None and p.name == clock.port) for p in of.spec.inputs]


def _names(of: Expectation, known: dict[tuple[int, str], int]) -> list[int]:
    """A number for each case, the same in two specs for the same case; `known` holds those given so far. That of a step
    stands for all steps since power-up."""
    cases = of.cases
    if cases.labels:
        inputs = list(cases.labels)
    else:
        one, zero = spelled(cases.one, cases.count), spelled(cases.zero, cases.count)
        inputs = [f"{a:x} {b:x}" for a, b in zip(one, zero, strict=True)]
    if cases.stimulus is None:
        return [known.setdefault((-1, text), len(known)) for text in inputs]
    names: list[int] = []
    for sequence in cases.stimulus.sequences:
        before = -2
        for step in range(sequence.first, sequence.first + sequence.length):
            before = known.setdefault((before, f"{cases.stimulus.actions[step]} {inputs[step]}"), len(known))
            names.append(before)
    return names


def _same(first: Planes, a: int, second: Planes, b: int) -> bool:
    if (first.care >> a & 1) != (second.care >> b & 1) or (a in first.follow) != (b in second.follow):
        return False
    if a in first.follow:
        (anchor, turned), (other, also) = first.follow[a], second.follow[b]
        return a - anchor == b - other and turned == also
    if not first.care >> a & 1:
        return True
    return (first.one >> a & 1, first.zero >> a & 1) == (second.one >> b & 1, second.zero >> b & 1)
