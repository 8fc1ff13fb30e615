"""Parts of a design that bring their own run-time: what they may ask of the kernel, and what it asks of them.

Everything still happens in one order of events: a part's processes run in the kernel's sweeps beside all others, and
its signals take their new values where non-blocking updates do."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, Protocol

from obento.core.ir.signal import Signal
from obento.core.limits import Limits
from obento.core.values import Word


class Finished(Exception):
    """The bench ended the run; `failed` when it said that something is wrong with it. `position` is where, 0 if that is
    not known."""

    def __init__(self, failed: bool = False, position: int = 0) -> None:
        super().__init__()
        self.failed = failed
        self.position = position


class RunError(Exception):
    """The run cannot go on: a value out of its range, an index outside of an array. `position` is where."""

    def __init__(self, text: str, position: int = 0) -> None:
        super().__init__(text)
        self.text = text
        self.position = position


class Host(Protocol):
    """The kernel as a part sees it. Times are ticks of the design's precision."""

    limits: Limits
    now: int
    rounds: int
    most_rounds: int
    depth: int
    words: list[Word]
    bench: Any
    changed: set[int] | None

    def add_process(self, run: Callable[[object], None], position: int) -> int:
        """Have something run when power comes up; gives the number by which it is run again."""

    def run_soon(self, index: int) -> None:
        """Run a process in the next sweep."""

    def at(self, ticks: int, action: Callable[[], None]) -> None:
        """Do something after so many ticks."""

    def change(self, signal: int, word: Word) -> None:
        """A signal of the design takes a value."""

    def many_rounds(self, position: int) -> None:
        """Called now and then by loops; raises LimitReached when they go on too long."""


class Part(Protocol):
    """`unfit` says why there is no form of it for lanes; empty when there is: its processes in the design marked
    `shadow`."""

    unfit: str
    inputs: list[Signal]

    def prepare(self) -> None:
        """Make ready for any number of starts.

        Raises
        ------
        LimitReached
            If it is more than can be run at all: that says nothing about the design.
        """

    def start(self, host: Host, ticks_per_second: int, given: Mapping[int, Word]) -> None:
        """Begin anew: signals at their start values, processes ready to run. Inputs with a word in `given` (by number)
        begin with that."""

    @property
    def pending(self) -> bool:
        """Whether some signal has a new value to take, or some process to go on."""

    def update(self) -> None:
        """Signals take their new values; what waits for them runs."""

    def changed(self, signal: int, word: Word) -> None:
        """One of `inputs` has changed."""

    def idle(self) -> Any:
        """All there is where nothing is left to happen, to come back to by `go_back`; None where that cannot be."""

    def go_back(self, idle: Any) -> None:
        """Be as it was when this was taken."""

    def show_all(self) -> None:
        """From now on the signals of the design follow all of the part's own, to be seen in waveforms."""
