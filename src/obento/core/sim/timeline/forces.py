"""Procedural continuous assignments: `assign` and `force` over what a signal would be (IEEE 1364-2005 clause 9.3)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import cast

from obento.core import values as v
from obento.core.ir.signal import Signal
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


class Holds:
    """Everything that `assign` and `force` may hold in a run, by number of the signal. `show` is told what a signal
    shows then; `followers` are signals that something held follows."""

    def __init__(self, show: Callable[[int, Word], None]) -> None:
        self._show = show
        self.held: dict[int, Held] = {}
        self.followers: dict[int, list[tuple[str, int, int, int, int]]] = {}

    def may_hold(self, signal: Signal, word: Word) -> None:
        """A signal that some statement holds, with what it begins with."""
        held = Held(signal.width, signal.kind == "net", word, {}, {})
        self.held[signal.id] = cast(Held, HeldReal(signal.number, {})) if signal.real else held

    def write(self, signal: int, low: int, width: int, word: Word) -> None:
        """An ordinary write to a signal that may be held."""
        self.held[signal].write(low, width, word)
        self._show(signal, self.held[signal].shown())

    def follow(self, follower: int, word: Word) -> None:
        """What somebody follows has changed."""
        for kind, target, low, width, part in self.followers[follower]:
            self.held[target].hold(kind, low, width, _part_of(word, part, width))
            self._show(target, self.held[target].shown())

    def hold(self, kind: str, signal: int, low: int, width: int, follower: int, part: int, value: Word) -> None:
        """Hold digits at what a follower shows, until they are let go."""
        self._stop_following(kind, signal, low, width)
        self.followers.setdefault(follower, []).append((kind, signal, low, width, part))
        self.held[signal].hold(kind, low, width, _part_of(value, part, width))
        self._show(signal, self.held[signal].shown())

    def let_go(self, kind: str, signal: int, low: int, width: int) -> None:
        """End `assign` or `force` of some digits."""
        kind = {"deassign": "assign", "release": "force"}[kind]
        self._stop_following(kind, signal, low, width)
        self.held[signal].let_go(kind, low, width)
        self._show(signal, self.held[signal].shown())

    def _stop_following(self, kind: str, signal: int, low: int, width: int) -> None:
        for follower, entries in list(self.followers.items()):
            kept = [
                e for e in entries if not (e[0] == kind and e[1] == signal and e[2] < low + width and low < e[2] + e[3])
            ]
            if kept:
                self.followers[follower] = kept
            else:
                del self.followers[follower]


def _part_of(word: Word, low: int, width: int) -> Word:
    """Some digits of a value; a real number has none and is taken whole."""
    return word if isinstance(word, float) else v.select(word, 0, low, width)
