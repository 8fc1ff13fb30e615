"""Signals, and the events on them that wake what waits."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from obento.core.ir.collections import Collection, CollectionType, copied
from obento.core.values import Word

Edge = Literal["any", "pos", "neg"]

Delays = tuple[int, int, int]
"""Rise, fall and turn-off delay in ticks (1364 clause 7.14)."""

STRONG = (6, 6)
"""Strengths of a driver's 0 and 1 where none are given (1364 table 7-7)."""


@dataclass(slots=True, eq=False)
class Signal:
    """A net or variable. `offset` is the number of its bit 0 among all bits of the design.

    An array has the width of one element in `element` (else 0). A net has its kind in `net` and, when it delays what it
    is given, `delay`; a trireg keeps what it last was with the strength `charge`. `real` variables hold a
    floating-point number, at first `number`, `text` ones a string, at first `letters`, those with a `collection` one of
    these, at first like `first`; `automatic` ones live for one call only. `held` once some statement may force it. In
    `two_state` ones nothing but 0 and 1 is ever written (1800 clause 6.3.1)."""

    id: int
    name: str
    width: int
    kind: Literal["net", "variable"]
    position: int = 0
    initial: Word | None = None
    offset: int = 0
    element: int = 0
    net: str = "wire"
    charge: int = 2
    delay: Delays | None = None
    real: bool = False
    number: float = 0.0
    letters: str = ""
    text: bool = False
    collection: CollectionType | None = None
    first: Collection | None = None
    automatic: bool = False
    held: bool = False
    two_state: bool = False

    def started(self) -> float | str | Collection:
        """What a real number, a string or a collection begins with."""
        if self.collection is not None:
            return copied(self.collection, self.first) if self.first is not None else Collection(self.collection)
        return self.letters if self.text else self.number

    @property
    def has_digits(self) -> bool:
        """Whether it holds a word of digits, no real number, no string and no collection."""
        return not (self.real or self.text or self.collection)


@dataclass(slots=True)
class Watch:
    """What wakes a process: an event on some bits of a signal."""

    signal: Signal
    edge: Edge
    low: int
    width: int
