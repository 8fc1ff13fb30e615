"""The syntax tree of wiring lists."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(slots=True)
class Node:
    """Anything, with its half-open stretch of positions."""

    start: int
    end: int


@dataclass(slots=True)
class Bus(Node):
    """A port: `name`, `name[4]` (bits 3..0) or `name[0..3]` (first number leftmost)."""

    name: str
    width: int
    left: int
    right: int


@dataclass(slots=True)
class Operand(Node):
    """Anything that a part is connected to."""


@dataclass(slots=True)
class Wire(Operand):
    """`name`, `name[3]` or `name[3..1]`; `left` is None for the whole."""

    name: str
    left: int | None = None
    right: int | None = None


@dataclass(slots=True)
class Constant(Operand):
    """A number of so many bits."""

    value: int
    width: int


@dataclass(slots=True)
class Count(Operand):
    """A plain number that says how many: `bits: 8`."""

    value: int


@dataclass(slots=True)
class Open(Operand):
    """`_`: left open on purpose."""


@dataclass(slots=True)
class Join(Operand):
    """Operands put together, the leftmost first."""

    parts: list[Operand]


@dataclass(slots=True)
class Use(Operand):
    """A gate or block with its operands; `pins` names those given as `pin: operand`."""

    what: str
    args: list[Operand]
    pins: list[str | None]


@dataclass(slots=True)
class Line(Node):
    """A gate or block with what it drives; `label` names it."""

    label: str | None
    targets: list[Wire]
    value: Operand


@dataclass(slots=True)
class Wiring(Node):
    """One wiring list with its ports and lines."""

    name: str
    name_start: int
    takes: list[Bus] = field(default_factory=list)
    gives: list[Bus] = field(default_factory=list)
    lines: list[Line] = field(default_factory=list)
