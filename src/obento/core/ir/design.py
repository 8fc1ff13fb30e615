"""A Design: signals and processes, flat for machines, with the hierarchy kept for people."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from obento.core.ir.nodes import Expr, Function, Stmt
from obento.core.ir.part import Part
from obento.core.ir.signal import STRONG, Delays, Signal, Watch
from obento.core.values import Word

BUS = "bus"
"""The origin of a process that makes a bus of its drivers a moment after they changed, where it should be at once."""


@dataclass(slots=True)
class Process:
    """A body and what wakes it.

    `continuous` processes (gates, assignments) run at power-up and whenever something they watch changes; `always`
    processes wait at power-up; `initial` ones run once, `forever` ones again and again: their bodies do the waiting.
    The values of a `continuous` process may come out later, by `delay`, and with other `strengths` than strong. A
    `shadow` is the form for lanes of what a part of the design does by itself on the timeline."""

    kind: Literal["continuous", "always", "initial", "forever"]
    body: Stmt
    watches: list[Watch]
    position: int
    origin: str
    path: str = ""
    delay: Delays | None = None
    strengths: tuple[int, int] = STRONG
    shadow: bool = False


@dataclass(slots=True)
class Port:
    """A port as the outside sees it."""

    name: str
    direction: Literal["in", "out", "inout"]
    signal: Signal
    signed: bool
    position: int = 0


@dataclass(slots=True)
class Instance:
    """A unit used somewhere, for people: drawings, counts, rules."""

    name: str
    unit: str
    position: int
    children: list[Instance] = field(default_factory=list)


@dataclass(slots=True)
class LibraryPart:
    """A part of a wiring list's library, for drawings: what is at its pins, by their names, and the processes that it
    is made of."""

    kind: str
    label: str
    position: int
    path: str
    inputs: list[tuple[str, Expr]]
    outputs: list[tuple[str, Signal]]
    processes: list[Process]


@dataclass(slots=True)
class Switch:
    """A switch that conducts both ways between two digits of nets while `control` is 1, always when there is none
    (7.6)."""

    a: tuple[Signal, int]
    b: tuple[Signal, int]
    control: Expr | None
    position: int


@dataclass(slots=True)
class Variable:
    """A declared name as a bench or a waveform sees it: range and sign as written; the `members` of a structure by
    their path, first digit and width."""

    name: str
    signal: Signal
    kind: str
    msb: int
    lsb: int
    low: int = 0
    members: tuple[tuple[str, int, int], ...] = ()


@dataclass(slots=True)
class ScopeOfNames:
    """One level of the hierarchy with what is declared in it; `kind` is module, interface, begin, fork, task or
    function."""

    name: str
    kind: str
    path: str
    variables: list[Variable] = field(default_factory=list)
    children: list[ScopeOfNames] = field(default_factory=list)


@dataclass(slots=True)
class Design:
    """`precision` is the length of one tick as a power of ten in seconds.

    `finals` run once when a bench comes to its end. A 1 in one of `escapes` says that lanes cannot tell what happens in
    that case: it must be run on the timeline. In those of them that are in `errors` it says that the case ends in an
    error, if no other says anything. `kept` are pairs of one-digit signals: the first holds what the second was when
    its process ran last. `is_seen_inside` makes its parts show all their signals on the timeline, not only those of
    ports. `given` are the texts that came with it, by path, which it may read."""

    unit: str
    language: str
    ports: list[Port] = field(default_factory=list)
    signals: list[Signal] = field(default_factory=list)
    processes: list[Process] = field(default_factory=list)
    functions: list[Function] = field(default_factory=list)
    switches: list[Switch] = field(default_factory=list)
    root: Instance | None = None
    bits: int = 0
    precision: int = -9
    names: list[ScopeOfNames] = field(default_factory=list)
    parts: list[Part] = field(default_factory=list)
    finals: list[Process] = field(default_factory=list)
    escapes: list[Signal] = field(default_factory=list)
    errors: list[Signal] = field(default_factory=list)
    kept: list[tuple[Signal, Signal]] = field(default_factory=list)
    is_seen_inside: bool = False
    library: list[LibraryPart] = field(default_factory=list)
    given: Mapping[str, str] = field(default_factory=dict)

    def add_signal(
        self, name: str, width: int, kind: Literal["net", "variable"], position: int = 0, initial: Word | None = None
    ) -> Signal:
        """A new signal; its bits come after all that are there."""
        signal = Signal(len(self.signals), name, width, kind, position, initial, self.bits)
        self.signals.append(signal)
        self.bits += width
        return signal

    def port(self, name: str) -> Port:
        """A port by its name. Raises KeyError if there is none."""
        for port in self.ports:
            if port.name == name:
                return port
        raise KeyError(name)
