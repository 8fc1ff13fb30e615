"""A specification as read: ports, sources of behaviour, cases, rules, marks."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from obento.core import values
from obento.core.formula.ast import Formula
from obento.core.values import Word

Radix = Literal["bin", "dec", "hex"]

EDITION = 2
"""How the texts of specs are read today. A version that was used before keeps the edition it was read by, so that no
result of it turns.

Edition 1 took `0x1` in a binary column of three digits as a hexadecimal number and `-1` in one of two as digits, took x
left of the bar for a value that no case has, and began sequences made from a function table at power-up although there
is a reset. """


See = Literal["first-failing", "all", "counts", "nothing"]
Tell = Literal["always", "after due", "never"]
"""How much of their wrong cases students see."""

SEE: tuple[See, ...] = ("first-failing", "all", "counts", "nothing")
TELL: tuple[Tell, ...] = ("always", "after due", "never")


@dataclass(frozen=True, slots=True)
class SpecPort:
    """`left` and `right` number the bits as declared, leftmost first; the leftmost is the most significant."""

    name: str
    direction: Literal["in", "out"]
    width: int
    left: int
    right: int
    signed: bool
    radix: Radix

    def bit_name(self, offset: int) -> str:
        """The declared number of the bit at an offset (0 is the rightmost)."""
        number = self.right + offset if self.left >= self.right else self.right - offset
        return f"{self.name}[{number}]"

    def bit_word(self, offset: int) -> str:
        """A bit as people call it: by the port's name alone where there is one."""
        return self.name if self.width == 1 else self.bit_name(offset)

    def show(self, word: Word, cared: int | None = None) -> str:
        """A word as the table shows it: in the port's radix where it is known, else digit by digit, `-` where not
        compared."""
        full = values.ones(self.width)
        care = full if cared is None else cared
        if care == full and self.radix != "bin" and values.is_known(word, self.width):
            if self.radix == "hex":
                return f"0x{word[0]:0{(self.width + 3) // 4}x}"
            return str(values.signed_value(word[0], self.width) if self.signed else word[0])
        digits = values.to_digits(word, self.width)
        if self.radix != "bin" and care == full and len(set(digits)) == 1:
            return digits[0]
        text = "".join(d if care >> (self.width - 1 - i) & 1 else "-" for i, d in enumerate(digits))
        if self.radix != "bin" and care:
            return "0b" + text
        return text if care else "-"


@dataclass(frozen=True, slots=True)
class Cell:
    """One value in a table: digits, and which of them are given (the others are `-`).

    In clocked labs an expected value may also be the one `before` the step (`=`) or its complement (`!`).
    """

    word: Word
    care: int
    before: Literal["", "=", "!"] = ""


@dataclass(frozen=True, slots=True)
class Row:
    """One row of a table; `outputs` is None where only inputs are listed."""

    position: int
    inputs: tuple[Cell, ...]
    outputs: tuple[Cell, ...] | None
    line: int


@dataclass(frozen=True, slots=True)
class Clock:
    """`edge` is the active one; at rest the clock is on the level before it."""

    port: str
    edge: Literal["rise", "fall"]

    @property
    def idle(self) -> int:
        """The level between edges: 0 where it acts on the rise."""
        return int(self.edge == "fall")


@dataclass(frozen=True, slots=True)
class Reset:
    """The reset input, the level at which it is active, and whether it waits for the clock."""

    port: str
    active: int
    kind: Literal["async", "sync"]


@dataclass(frozen=True, slots=True)
class StepRow:
    """One step: inputs are set, then the clock does what `action` says: `.` nothing, `r` it rises, `f` it falls, `c` a
    cycle.

    `inputs` are in the spec's order, the clock's own cell is empty.
    """

    position: int
    line: int
    action: str
    inputs: tuple[Cell, ...]
    outputs: tuple[Cell, ...] | None


@dataclass(frozen=True, slots=True)
class StepList:
    """One sequence as written."""

    name: str
    rows: tuple[StepRow, ...]


@dataclass(frozen=True, slots=True)
class FunctionRow:
    """One row of a function table: when, and what becomes of each of its states.

    `clock` is `-` (always), `.` (no edge), `r`, `f`, or the level 0 or 1 without an edge. `present` are states before,
    by name; `then` is a value, or a formula over inputs and the states before."""

    position: int
    line: int
    clock: str
    inputs: tuple[Cell, ...]
    present: tuple[tuple[str, Cell], ...]
    then: tuple[tuple[str, Cell | Formula], ...]


@dataclass(frozen=True, slots=True)
class Bench:
    """A bench as the source of verdicts, or (with `right` and `wrong`) what students hand in.

    `passing` and `failing` are patterns for printed lines, whose group `check` names the check; without them the
    bench's assertions are the checks. `checks` names them outright. `right` and `wrong` are designs that a student's
    bench has to accept and to reject; `tests` is the unit that they all are."""

    files: tuple[str, ...] = ()
    top: str | None = None
    passing: str | None = None
    failing: str | None = None
    checks: tuple[str, ...] = ()
    right: tuple[str, ...] = ()
    wrong: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class RandomCases:
    """Cases made by a generator with a seed, so that they are the same everywhere."""

    count: int
    seed: int


@dataclass(frozen=True, slots=True)
class Rules:
    """How a hand-in may be built. `behaviour` says whether processes, arithmetic and the like are allowed beside
    gates."""

    languages: tuple[str, ...] = ()
    only_gates: tuple[str, ...] = ()
    max_gates: int | None = None
    max_levels: int | None = None
    behaviour: bool = True


@dataclass(frozen=True, slots=True)
class Marks:
    """`weights` gives each group's share when `by` is groups, `rules` the points that breaking a rule costs."""

    total: float = 10.0
    by: Literal["cases", "groups", "all"] = "cases"
    weights: dict[str, float] = field(default_factory=dict)
    rules: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Spec:
    """Everything that a specification file says; see docs/formats.md for each of its keys."""

    title: str
    unit: str
    inputs: tuple[SpecPort, ...]
    outputs: tuple[SpecPort, ...]
    equations: tuple[str, int] | None
    table: tuple[Row, ...] | None
    listed: tuple[Row, ...]
    models: tuple[str, ...]
    all_cases: bool
    corners: bool
    random: RandomCases | None
    groups: dict[str, tuple[str, int]]
    lenient: bool
    aliases: dict[str, tuple[str, ...]]
    rules: Rules
    marks: Marks
    see: See
    hidden: tuple[str, ...]
    digest: str
    clock: Clock | None = None
    reset: Reset | None = None
    inner: tuple[SpecPort, ...] = ()
    steps: tuple[StepList, ...] = ()
    function: tuple[FunctionRow, ...] | None = None
    bench: Bench | None = None
    without_reset: bool = False
    tell_change: Tell = "always"
    edition: int = EDITION

    @property
    def is_clocked(self) -> bool:
        """Whether its cases are steps of sequences, one after the other."""
        return self.clock is not None or bool(self.steps) or self.function is not None

    @property
    def input_bits(self) -> int:
        """The number of input bits."""
        return sum(p.width for p in self.inputs)
