"""How a clocked design is driven: sequences of steps, each from power-up.

In a step the inputs are set and the design settles; then the clock does what the step's action says and the design
settles again; then outputs are sampled; after a whole cycle the clock goes back to rest."""

from __future__ import annotations

from collections.abc import Sequence as Items
from dataclasses import dataclass

from obento.core.spec.model import Cell, Clock, SpecPort
from obento.core.values import Word, ones

QUIET, RISE, FALL, CYCLE = ".", "r", "f", "c"


@dataclass(frozen=True, slots=True)
class Sequence:
    """`length` steps from number `first` on."""

    name: str
    first: int
    length: int


@dataclass(frozen=True, slots=True)
class Stimulus:
    """`actions` has one letter a step. `free[i]` are the steps in which input bit `i` is left open (`-`).

    `clock` is the number of the clock's bit among all input bits, None without a clock.
    """

    sequences: tuple[Sequence, ...]
    actions: str
    clock: int | None
    idle: int
    free: tuple[int, ...]

    def place(self, step: int) -> tuple[Sequence, int]:
        """The sequence of a step, and the step's number in it from 1 on."""
        low, high = 0, len(self.sequences) - 1
        while low < high:
            middle = (low + high + 1) // 2
            low, high = (middle, high) if self.sequences[middle].first <= step else (low, middle - 1)
        found = self.sequences[low]
        return found, step - found.first + 1

    def active(self, step: int) -> bool:
        """Whether the design's clock edge happens in a step."""
        return self.actions[step] in (CYCLE, FALL if self.idle else RISE)

    def name(self, step: int) -> str:
        """A step as people say it: `walk 2, step 3`; without the sequence where there is only one."""
        sequence, number = self.place(step)
        return f"{sequence.name}, step {number}" if len(self.sequences) > 1 else f"step {number}"


def clock_during(action: str, level: int, idle: int) -> int:
    """The clock's level when outputs are sampled, in a step that begins with it at `level`."""
    return level if action == QUIET else 1 - idle if action == CYCLE else int(action == RISE)


def clock_after(action: str, level: int, idle: int) -> int:
    """The clock's level at the end of a step."""
    return idle if action == CYCLE else clock_during(action, level, idle)


@dataclass(frozen=True, slots=True)
class Planned:
    """One step before it is packed: what the clock does, and the inputs in the spec's order."""

    action: str
    inputs: tuple[Cell, ...]


def cell_of(word: Word, width: int) -> Cell:
    """A cell of a table that says a whole word."""
    return Cell(word, ones(width))


def pack_steps(
    inputs: tuple[SpecPort, ...], clock: Clock | None, sequences: Items[tuple[str, Items[Planned]]]
) -> tuple[int, tuple[int, ...], tuple[int, ...], Stimulus]:
    """Number of steps, planes of every input bit, and the drive; open inputs are 0 in the planes."""
    width = sum(p.width for p in inputs)
    idle = clock.idle if clock else 0
    one_columns: list[list[str]] = [[] for _ in range(width)]
    zero_columns: list[list[str]] = [[] for _ in range(width)]
    free_columns: list[list[str]] = [[] for _ in range(width)]
    placed: list[Sequence] = []
    actions: list[str] = []
    clock_bit: int | None = None
    for name, steps in sequences:
        placed.append(Sequence(name, len(actions), len(steps)))
        level = idle
        for step in steps:
            actions.append(step.action)
            sampled = clock_during(step.action, level, idle)
            level = clock_after(step.action, level, idle)
            bit = 0
            for port, cell in zip(inputs, step.inputs, strict=True):
                if clock is not None and port.name == clock.port:
                    clock_bit = bit
                    cell = Cell((sampled, 1 - sampled), 1)
                for i in range(port.width):
                    open_ = not cell.care >> i & 1
                    free_columns[bit].append("1" if open_ else "0")
                    one_columns[bit].append("1" if not open_ and cell.word[0] >> i & 1 else "0")
                    zero_columns[bit].append("1" if open_ or cell.word[1] >> i & 1 else "0")
                    bit += 1
    planes = [
        tuple(int("".join(reversed(c)) or "0", 2) for c in columns)
        for columns in (one_columns, zero_columns, free_columns)
    ]
    return len(actions), planes[0], planes[1], Stimulus(tuple(placed), "".join(actions), clock_bit, idle, planes[2])
