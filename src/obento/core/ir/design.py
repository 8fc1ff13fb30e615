"""A Design: signals and processes, flat for machines, with the hierarchy kept for people."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from obento.core.ir.nodes import Function, Stmt
from obento.core.values import Word

Edge = Literal["any", "pos", "neg"]


@dataclass(slots=True, eq=False)
class Signal:
    """A net or variable. `offset` is the number of its bit 0 among all bits of the design."""

    id: int
    name: str
    width: int
    kind: Literal["net", "variable"]
    position: int = 0
    initial: Word | None = None
    offset: int = 0


@dataclass(slots=True)
class Watch:
    """What wakes a process: an event on some bits of a signal."""

    signal: Signal
    edge: Edge
    low: int
    width: int


@dataclass(slots=True)
class Process:
    """A body and what wakes it.

    `continuous` processes (gates, assignments) run at power-up and whenever something they watch changes; `always`
    processes wait at power-up; `initial` ones run once.
    """

    kind: Literal["continuous", "always", "initial"]
    body: Stmt
    watches: list[Watch]
    position: int
    origin: str
    path: str = ""


@dataclass(slots=True)
class Port:
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
class Design:
    unit: str
    language: str
    ports: list[Port] = field(default_factory=list)
    signals: list[Signal] = field(default_factory=list)
    processes: list[Process] = field(default_factory=list)
    functions: list[Function] = field(default_factory=list)
    root: Instance | None = None
    bits: int = 0

    def add_signal(self, name: str, width: int, kind: Literal["net", "variable"], position: int = 0, initial: Word | None = None) -> Signal:
        signal = Signal(len(self.signals), name, width, kind, position, initial, self.bits)
        self.signals.append(signal)
        self.bits += width
        return signal

    def port(self, name: str) -> Port:
        for port in self.ports:
            if port.name == name:
                return port
        raise KeyError(name)
