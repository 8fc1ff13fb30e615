"""What is expected of hand-ins, in the form in which they are held against it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from obento.core import values
from obento.core.planes import picked
from obento.core.spec.cases import Cases, shown_inputs
from obento.core.spec.model import Row, Spec, StepRow

Key = tuple[str, int]
"""A bit of an output of the spec: port name and offset (0 is the rightmost)."""


@dataclass(slots=True)
class Planes:
    """Expected values of one output bit in all cases; `care` has a one where they are to be compared.

    `follow` are steps in which the bit is expected as it was observed in an earlier step, which was not compared: that
    step, and whether the opposite is expected."""

    one: int = 0
    zero: int = 0
    care: int = 0
    follow: dict[int, tuple[int, bool]] = field(default_factory=dict)

    def with_cases(self, other: Planes, cases: int) -> Planes:
        """These values, but in `cases` those of another."""
        keep = ~cases
        return Planes(
            self.one & keep | other.one & cases,
            self.zero & keep | other.zero & cases,
            self.care & keep | other.care & cases,
        )

    def after(self, seen: tuple[int, int]) -> Planes:
        """The same for one hand-in, whose bit was `seen` so. The opposite of what is unknown is no value to be right
        with."""
        if not self.follow:
            return self
        one, zero, care = self.one, self.zero, self.care
        for step, (anchor, turned) in self.follow.items():
            a, b = seen[0] >> anchor & 1, seen[1] >> anchor & 1
            if turned:
                a, b = (b, a) if a != b else (1, 0)
            one, zero, care = one | a << step, zero | b << step, care | 1 << step
        return Planes(one, zero, care)


@dataclass(slots=True)
class Source:
    """What one source says; `masked` are bits that it wants not compared whatever others say (`-`)."""

    name: str
    bits: dict[Key, Planes]
    masked: dict[Key, int] = field(default_factory=dict)
    rows: list[tuple[Row | StepRow, int]] = field(default_factory=list)


@dataclass(slots=True)
class Disagreement:
    """Two sources that say different things of an output in one case."""

    case: int
    output: str
    first: str
    second: str


@dataclass(frozen=True, slots=True)
class Coverage:
    """What the sequences made from a function table take: pairs of a known state and a row, of those that are possible.

    `reached` of `possible_states` values of the states can be reached; `unreached` says some that cannot, `idle_rows`
    are the lines of rows that no reachable state takes. `grid` has a text for each row of the table, a letter for each
    state: `t` taken, `o` possible and not taken, `.` not possible; it is empty where there are too many states to be
    looked at."""

    rows: int
    states: int
    taken: int
    possible: int
    possible_states: int
    unreached: tuple[str, ...] = ()
    idle_rows: tuple[int, ...] = ()
    is_whole: bool = True
    grid: tuple[str, ...] = ()


@dataclass(slots=True)
class Expectation:
    """The whole of a spec, ready to be held against hand-ins.

    Where a bench decides, `handed_in` is the spec with the ports of what is handed in, `beside` are the files of the
    bench."""

    spec: Spec
    cases: Cases
    bits: dict[Key, Planes]
    sources: list[Source]
    groups: dict[str, int]
    uncovered: int = 0
    disagreements: list[Disagreement] = field(default_factory=list)
    coverage: Coverage | None = None
    handed_in: Spec | None = None
    beside: dict[str, bytes] = field(default_factory=dict)

    @property
    def compared(self) -> int:
        """The cases in which some digit of an output is compared."""
        plane = 0
        for bits in self.bits.values():
            plane |= bits.care
            for step in bits.follow:
                plane |= 1 << step
        return plane

    @property
    def hidden(self) -> int:
        """The cases of all groups whose values are never shown."""
        plane = 0
        for name in self.spec.hidden:
            plane |= self.groups.get(name, 0)
        return plane


def with_cases(expectation: Expectation, chosen: Sequence[int]) -> Expectation:
    """The same for some of its cases alone, in this order; one may stand there several times. Only without a clock."""
    cases = expectation.cases
    assert cases.stimulus is None

    def cut(plane: int) -> int:
        return picked(plane, cases.count, chosen)

    fewer = Cases(len(chosen), tuple(cut(p) for p in cases.one), tuple(cut(p) for p in cases.zero))
    bits = {key: Planes(cut(b.one), cut(b.zero), cut(b.care)) for key, b in expectation.bits.items()}
    return replace(expectation, cases=fewer, bits=bits, groups={})


_MOST_NAMED = 24


def inputs_text(names: Sequence[str], values: Sequence[str]) -> str:
    """`key = 1, level_eq = 0`; of very many inputs only the first and the last are named, and the values stand in their
    order."""
    if len(names) <= _MOST_NAMED:
        return ", ".join(f"{n} = {v}" for n, v in zip(names, values, strict=True))
    return f"{names[0]} to {names[-1]} = {('' if all(len(v) == 1 for v in values) else ' ').join(values)}"


def case_text(spec: Spec, cases: Cases, case: int) -> str:
    """A case in words: `key = 1, level_eq = 0`; a step with its place before: `walk 2, step 7 (c), take = 1`."""
    return case_texts(spec, cases, [case])[0]


def case_texts(spec: Spec, cases: Cases, chosen: Sequence[int]) -> list[str]:
    """Some cases in words."""
    if cases.labels:
        return [cases.labels[case] for case in chosen]
    columns = {
        port.name: values
        for port, values in zip(spec.inputs, shown_inputs(spec, cases, chosen), strict=True)
        if spec.clock is None or port.name != spec.clock.port
    }
    names = list(columns)
    texts = [inputs_text(names, values) for values in zip(*columns.values(), strict=True)] or [""] * len(chosen)
    if cases.stimulus is None:
        return texts
    steps = [
        cases.stimulus.name(case) + (f" ({cases.stimulus.actions[case]})" if spec.clock else "") for case in chosen
    ]
    return [f"{step}, {text}" if text else step for step, text in zip(steps, texts, strict=True)]


def expected_word(
    result: Expectation, port_name: str, width: int, case: int, bits: dict[Key, Planes] | None = None
) -> tuple[values.Word, int]:
    """The expected value of an output in one case, and which of its digits are compared.

    `bits` are those of one hand-in, where they depend on what it does (`Planes.follow`).
    """
    bits = bits or result.bits
    one = zero = care = 0
    for i in range(width - 1, -1, -1):
        planes = bits[port_name, i]
        one = one << 1 | (planes.one >> case & 1)
        zero = zero << 1 | (planes.zero >> case & 1)
        care = care << 1 | (planes.care >> case & 1)
    return (one, zero), care
