"""Procedural continuous assignments: `assign` and `force` over what a signal would be (IEEE 1364-2005 clause 9.3)."""

from __future__ import annotations

from dataclasses import dataclass

from obento.core.sim.timeline.expressions import put
from obento.core.values import Word


@dataclass(slots=True)
class HeldReal:
    """A real variable that some statement may hold: as a whole only."""

    base: float
    by: dict[str, float]

    def shown(self) -> float:
        """The value that is seen."""
        return self.by.get("force", self.by.get("assign", self.base))

    def write(self, low: int, width: int, value: float) -> None:
        """An ordinary write: lost while something holds the variable."""
        if not self.by:
            self.base = value

    def hold(self, kind: str, low: int, width: int, value: float) -> None:
        """Hold the variable by `assign` or `force`."""
        self.by[kind] = value

    def let_go(self, kind: str, low: int, width: int) -> None:
        """It keeps what it shows until it is written (9.3.1, 9.3.2), or goes back to what `assign` gives it."""
        before = self.shown()
        self.by.pop(kind, None)
        if not self.by:
            self.base = before


@dataclass(slots=True)
class Held:
    """A signal that some statement may hold.

    `base` is what its drivers make of a net; a variable's is what it shows, since writes are lost while it is held.
    """

    width: int
    is_net: bool
    base: Word
    masks: dict[str, int]
    words: dict[str, Word]

    def shown(self) -> Word:
        """The value that is seen: digits that are forced before assigned ones before its own."""
        one, zero = self.base
        for kind in ("assign", "force"):
            mask = self.masks.get(kind, 0)
            word = self.words.get(kind, (0, 0))
            one, zero = one & ~mask | word[0] & mask, zero & ~mask | word[1] & mask
        return one, zero

    def write(self, low: int, width: int, word: Word) -> None:
        """An ordinary write: it reaches a net's base always, a variable only where nothing holds it."""
        new = put(self.base, self.width, low, width, word)
        if not self.is_net:
            held = self.masks.get("assign", 0) | self.masks.get("force", 0)
            new = new[0] & ~held | self.base[0] & held, new[1] & ~held | self.base[1] & held
        self.base = new

    def hold(self, kind: str, low: int, width: int, word: Word) -> None:
        """Hold some digits by `assign` or `force`."""
        full = (1 << width) - 1
        self.masks[kind] = self.masks.get(kind, 0) | full << low
        self.words[kind] = put(self.words.get(kind, (0, 0)), self.width, low, width, word)

    def let_go(self, kind: str, low: int, width: int) -> None:
        """A net falls back to its drivers; a variable keeps what it shows until it is written (9.3.1, 9.3.2)."""
        if not self.is_net:
            self.base = self.shown()
        self.masks[kind] = self.masks.get(kind, 0) & ~(((1 << width) - 1) << low)
