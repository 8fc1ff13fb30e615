"""What is drawn: parts with pins inside of boxes, and wires from pin to pin.

A pin carries digits, rightmost first. Each is the number of a bit of the design, or one of the constants below.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

ZERO, ONE, UNKNOWN, FLOATING = -1, -2, -3, -4
"""Digits that are no bit of the design."""

CONSTANTS = {ZERO: "0", ONE: "1", UNKNOWN: "x", FLOATING: "z"}

Bits = tuple[int, ...]


@dataclass(slots=True, eq=False)
class Pin:
    """One place where a wire ends. `inverted` draws the circle; `edge` is rise or fall where only that is looked at."""

    side: Literal["in", "out"]
    name: str
    bits: Bits
    inverted: bool = False
    edge: Literal["", "rise", "fall"] = ""
    id: int = -1


@dataclass(slots=True, eq=False)
class Part:
    """Something with pins. `kind` is `unit` for a box that holds others, `input` and `output` for the ports of the
    whole, the name of a gate, `select`, `operator` for arithmetic and the like, or `process` for behaviour.

    `label` is what stands in it: a sign, the first line of a process, the name of an instance; `unit` what the instance
    is of. `start` and `end` are positions in the sources. `within` is the box that it stands in, -1 for none."""

    id: int
    kind: str
    label: str
    within: int
    start: int
    end: int
    pins: list[Pin] = field(default_factory=list)
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Wire:
    """From a pin to a pin; `label` says which digits of what starts there arrive, where not all do."""

    start: int
    end: int
    label: str


@dataclass(slots=True)
class Circuit:
    """`names` gives the name of a bit's signal, with the number of its digit (None for a signal of one bit)."""

    parts: list[Part]
    wires: list[Wire]
    names: dict[int, tuple[str, int | None]]

    def pins(self) -> list[Pin]:
        """All pins of all parts."""
        return [pin for part in self.parts for pin in part.pins]
