"""The timeline: one sequence of inputs through a Design, event by event. Kept plain; the oracle of everything faster.

Order of events (IEEE 1364-2005 clause 11, which leaves ties open; ours are settled so that runs repeat exactly): processes
that became runnable run in sweeps, each sweep in order of elaboration. A process woken while its turn in the running sweep
is still to come is not queued a second time. When no process is left, non-blocking updates take effect together in the
order they were made. `always` processes already wait when power-up begins; while one runs it does not wait, and so misses
its own events. A continuous assignment that reads what it drives does see its own change, and runs again.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import cast

from obento.core import values as v
from obento.core.ir.design import Design
from obento.core.ir.drivers import power_up_words
from obento.core.limits import LimitReached, Limits
from obento.core.sim.emit import Emitter, namespace
from obento.core.values import Word

_NOWHERE = 1 << 40


class DidNotSettle(Exception):
    """Still changing after `Limits.deltas` sweeps; `signals` names some that keep moving."""

    def __init__(self, signals: list[str]) -> None:
        super().__init__(f"does not settle: {', '.join(signals)}")
        self.signals = signals


class Timeline:
    """Holds the words of all signals; `power_up`, then any number of `apply`."""

    def __init__(self, design: Design, limits: Limits | None = None) -> None:
        self.design = design
        self.limits = limits or Limits()
        self.words: list[Word] = []
        self._watchers: list[list[tuple[int, str, int, int]]] = [[] for _ in design.signals]
        for index, process in enumerate(design.processes):
            for w in process.watches:
                self._watchers[w.signal.id].append((index, w.edge, w.low, w.width))
        emitter = Emitter()
        for index, process in enumerate(design.processes):
            emitter.process(f"p{index}", process.body)
        names = namespace()
        try:
            code = compile(emitter.source(), f"<{design.unit}>", "exec")
        except (SyntaxError, RecursionError, MemoryError) as error:
            raise LimitReached(f"`{design.unit}` nests loops deeper than can be run") from error
        exec(code, names)  # our own text, made above
        self._run = [cast(Callable[[Timeline], None], names[f"p{i}"]) for i in range(len(design.processes))]
        self._now: set[int] = set()
        self._next: set[int] = set()
        self._later: list[tuple[int, int, int, Word]] = []
        self._running = -1
        self._deaf = [p.kind != "continuous" for p in design.processes]

    def power_up(self) -> None:
        """All signals at their start values, then everything that runs of itself, until idle.

        Raises
        ------
        DidNotSettle, LimitReached
        """
        self.words = power_up_words(self.design)
        self._now, self._later = set(), []
        self._next = {i for i, p in enumerate(self.design.processes) if p.kind != "always"}
        self.settle()

    def apply(self, inputs: Mapping[str, Word]) -> None:
        """Set input ports together, then settle."""
        for name, word in inputs.items():
            signal = self.design.port(name).signal
            if self.words[signal.id] != word:
                self.change(signal.id, word)
        self.settle()

    def value(self, port: str) -> Word:
        return self.words[self.design.port(port).signal.id]

    def settle(self) -> None:
        sweeps = 0
        while True:
            while self._next:
                sweeps += 1
                if sweeps > self.limits.deltas:
                    raise DidNotSettle(self._moving())
                self._sweep()
            if not self._later:
                return
            updates, self._later = self._later, []
            for signal, low, width, word in updates:
                self.write(signal, low, width, word)

    def _sweep(self) -> None:
        self._now, self._next = self._next, set()
        for index in sorted(self._now):
            self._now.discard(index)
            self._running = index
            self._run[index](self)
        self._running = -1

    def _moving(self) -> list[str]:
        signals = {w.signal.name for i in self._next for w in self.design.processes[i].watches}
        return sorted(signals)[:6]

    def change(self, signal: int, word: Word) -> None:
        """A new word for a signal: wake what watches it."""
        old = self.words[signal]
        self.words[signal] = word
        for index, edge, low, width in self._watchers[signal]:
            if index in self._now or index in self._next or (index == self._running and self._deaf[index]):
                continue
            if _event(edge, old, word, low, width):
                self._next.add(index)

    def write(self, signal: int, low: int, width: int, word: Word) -> None:
        """Set some digits; those outside the signal vanish (5.2.1)."""
        size = self.design.signals[signal].width
        if low >= size or low + width <= 0:
            return
        mask = (v.ones(width) << low if low >= 0 else v.ones(width) >> -low) & v.ones(size)
        one = word[0] << low if low >= 0 else word[0] >> -low
        zero = word[1] << low if low >= 0 else word[1] >> -low
        old = self.words[signal]
        new = old[0] & ~mask | one & mask, old[1] & ~mask | zero & mask
        if new != old:
            self.change(signal, new)

    def later(self, signal: int, low: int, width: int, word: Word) -> None:
        """A non-blocking update."""
        self._later.append((signal, low, width, word))

    def offset(self, index: Word, width: int, signed: bool, base: int, step: int, most: int | None) -> int:
        """Where a computed index points; far outside when it is unknown or past `most`, so that nothing is written."""
        if not v.is_known(index, width):
            return _NOWHERE
        at = v.signed_value(index[0], width) if signed else index[0]
        offset = (at - base) * step
        if abs(offset) > _NOWHERE or (most is not None and not 0 <= offset <= most):
            return _NOWHERE
        return offset

    def loop_too_long(self, position: int) -> None:
        raise LimitReached(f"this loop ran more than {self.limits.loop_rounds} rounds", position, "does its condition ever become false?")


def _event(edge: str, old: Word, new: Word, low: int, width: int) -> bool:
    """Whether the change of a signal is the event waited for (table 9-1 for edges)."""
    mask = v.ones(width) << low
    if edge == "any":
        return bool((old[0] ^ new[0] | old[1] ^ new[1]) & mask)
    a = v.select(old, 0, low, 1)
    b = v.select(new, 0, low, 1)
    if a == b:
        return False
    if edge == "pos":  # 0 to anything else, or anything to 1
        return a == v.ZERO1 or b == v.ONE1
    return a == v.ONE1 or b == v.ZERO1
