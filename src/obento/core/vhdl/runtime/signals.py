"""Signals and their drivers while they run (IEEE 1076 clauses 14.7.2 and 10.5.2)."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import Any, Protocol

from obento.core.ir.part import Host, RunError
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.runtime.composites import (
    Path,
    Resolve,
    completed,
    leaves,
    merge,
    overlap,
    part_of,
    replaced,
    replaced_where_changed,
)

LONG_AGO = -(2**63)

Process = Hashable
"""What waits for signals: it is put among those that are ready, and nothing else is done to it."""


class Cycle(Protocol):
    """The run as its signals and drivers see it: the number of the cycle, who is ready in it, which drivers are due in
    the next."""

    host: Host
    cycle: int
    ready: dict[Any, None]
    due: list[Driver]


class Signal:
    """`event` and `active` are the numbers of the cycle in which it last had them."""

    __slots__ = (
        "active",
        "at_level",
        "drivers",
        "driving",
        "event",
        "forms",
        "held",
        "history",
        "keeps_history",
        "last",
        "last_active",
        "last_event",
        "links",
        "name",
        "plain",
        "queued",
        "resolve",
        "run",
        "value",
        "waiting",
        "watchers",
    )

    def __init__(self, run: Cycle, name: str, value: Any, resolve: Resolve | None) -> None:
        self.run = run
        self.name = name
        self.value = value
        self.last = value
        self.history = value
        self.keeps_history = False
        self.driving = value
        self.event = self.active = -1
        self.last_event = self.last_active = LONG_AGO
        self.resolve = resolve
        self.drivers: list[Driver] = []
        self.watchers: list[Process] = []
        self.at_level: dict[int, list[Process]] = {}
        self.waiting: dict[Process, None] = {}
        self.links: list[Callable[[], None]] = []
        self.forms: list[Callable[[], None]] = []
        self.queued = False
        self.held = False
        self.plain = False

    def is_plain(self) -> bool:
        """Whether its value is simply that of its one driver, and nothing else hangs on it."""
        if len(self.drivers) != 1 or self.keeps_history or self.links or self.forms or self.held:
            return False
        driver = self.drivers[0]
        return driver.whole and not driver.guard and not getattr(self.resolve, "always", False)

    def state(self) -> tuple[Any, ...]:
        """All that a signal keeps besides its drivers, where nothing is left to happen."""
        moments = self.event, self.active, self.last_event, self.last_active
        return self.value, self.last, self.history, self.driving, *moments

    def go_back(self, state: tuple[Any, ...]) -> None:
        """Be as it was when this was taken."""
        self.value, self.last, self.history, self.driving = state[:4]
        self.event, self.active, self.last_event, self.last_active = state[4:]
        self.queued = False

    def compute(self) -> Any:
        """What all drivers make together."""
        drivers = self.drivers
        if drivers and drivers[0].guard:
            values = [d.value for d in drivers if d.value is not None]
            return self.resolve(values) if self.resolve and (values or drivers[0].guard == "bus") else self.value
        if len(drivers) == 1 and drivers[0].whole:
            value = drivers[0].value
            return (
                value if self.resolve is None or not getattr(self.resolve, "always", False) else self.resolve([value])
            )
        if self.resolve is None:
            return merge([d.value for d in drivers], self.value)
        return completed(self.resolve([d.value for d in drivers]), self.value)

    def refresh(self) -> None:
        """Take the new value; an event when it differs."""
        self.driving = value = self.compute()
        for form in self.forms:
            form()
        if not self.held:
            self.take(value)

    def take(self, value: Any) -> None:
        """The signal takes a value: an event if it is another one (14.7.3.3)."""
        run = self.run
        self.active = run.cycle
        self.last_active = run.host.now
        if value != self.value:
            if self.keeps_history:
                self.history = replaced_where_changed(self.history, self.value, value)
            self.last = self.value
            self.value = value
            self.event = run.cycle
            self.last_event = run.host.now
            for process in self.watchers:
                run.ready[process] = None
            if self.at_level:
                run.ready.update(dict.fromkeys(self.at_level.get(value, ())))
            if self.waiting:
                for process in list(self.waiting):
                    run.ready[process] = None
        for link in self.links:
            link()


class Driver:
    """What one process gives to one signal. `whole` unless it drives only parts of it."""

    __slots__ = ("guard", "next", "queued", "run", "signal", "value", "waves", "whole")

    def __init__(self, run: Cycle, signal: Signal, value: Any, whole: bool, guard: str = "") -> None:
        self.run = run
        self.signal = signal
        self.value = self.next = value
        self.whole = whole
        self.queued = False
        self.guard = guard
        self.waves: dict[Path, list[tuple[int, Any]]] = {}
        signal.drivers.append(self)

    def go_back(self, value: Any, following: Any) -> None:
        """Be as it was, with nothing due."""
        self.value, self.next, self.queued = value, following, False
        if self.waves:
            self.waves.clear()

    def set(self, value: Any) -> None:
        """A new value after one delta."""
        if self.waves:
            self.waves.clear()
        self.next = value
        if not self.queued:
            self.queued = True
            self.run.due.append(self)

    def put(self, path: Path, value: Any, position: int) -> None:
        """A new value for a part, after one delta."""
        if self.waves:
            for key in [k for k in self.waves if overlap(k, path)]:
                del self.waves[key]
        self.next = replaced(self.next, path, value, position)
        if not self.queued:
            self.queued = True
            self.run.due.append(self)

    def schedule(
        self, path: Path, waves: list[tuple[Any, int]], transport: bool, reject: int | None, position: int
    ) -> None:
        """A waveform (10.5.2.2); delays in ticks, which must grow."""
        if len(waves) == 1 and not path and not isinstance(waves[0][0], Arr | tuple) and waves[0][1] > 0:
            value, delay = waves[0]
            at = self.run.host.now + delay
            before = self.waves.get(())
            if not self.waves or (before is not None and len(self.waves) == 1 and (transport or reject is None)):
                if before is None:
                    self.waves[()] = [(at, value)]
                elif transport:
                    self.waves[()] = [*(w for w in before if w[0] < at), (at, value)]
                else:
                    self.waves[()] = [*_kept(before, at, value), (at, value)]
                self.run.host.at(delay, self.fire)
                return
        last = -1
        for _, delay in waves:
            if delay < 0:
                raise RunError("a delay cannot be negative", position)
            if delay <= last:
                raise RunError("the delays of a waveform must grow", position)
            last = delay
        leaf_waves: dict[Path, list[tuple[int, Any]]] = {}
        now = self.run.host.now
        for value, delay in waves:
            if path:
                replaced(self.next, path, value, position)  # is the place there, does the value fit?
            for leaf, part in leaves(value, path):
                leaf_waves.setdefault(leaf, []).append((now + delay, part))
        for leaf, new in leaf_waves.items():
            self._preempt(leaf, new, transport, reject)
        for _, delay in waves:
            if delay == 0:
                self.fire()
            else:
                self.run.host.at(delay, self.fire)

    def part(self, path: Path, position: int) -> PartDriver:
        """The driver of a part."""
        return PartDriver(self, path, position)

    def _preempt(self, leaf: Path, new: list[tuple[int, Any]], transport: bool, reject: int | None) -> None:
        for key in [k for k in self.waves if k != leaf and overlap(k, leaf)]:
            del self.waves[key]
        old = [w for w in self.waves.get(leaf, ()) if w[0] < new[0][0]]
        if not transport:
            first = new[0]
            limit = first[0] - (reject if reject is not None else first[0] - self.run.host.now)
            kept: list[tuple[int, Any]] = []
            same = True
            for wave in reversed(old):
                same = same and wave[1] == first[1]
                if wave[0] < limit or same:
                    kept.append(wave)
            old = kept[::-1]
        self.waves[leaf] = old + new

    def fire(self) -> None:
        """The time of some transaction has come."""
        now = self.run.host.now
        for leaf in list(self.waves):
            waves = self.waves[leaf]
            done = [w for w in waves if w[0] <= now]
            if not done:
                continue
            value = done[-1][1]
            self.next = replaced(self.next, leaf, value, 0) if leaf else value
            if len(done) == len(waves):
                del self.waves[leaf]
            else:
                self.waves[leaf] = waves[len(done) :]
            if not self.queued:
                self.queued = True
                self.run.due.append(self)


class View:
    """A part of a signal, read like a signal."""

    __slots__ = ("path", "signal")

    def __init__(self, signal: Any, path: Path) -> None:
        self.signal = signal
        self.path = path

    @property
    def run(self) -> Cycle:
        """The run that the signal belongs to."""
        return self.signal.run  # type: ignore[no-any-return]

    @property
    def value(self) -> Any:
        """The part's value."""
        return part_of(self.signal.value, self.path)

    @property
    def last(self) -> Any:
        """The part's value before its last event."""
        return part_of(self.signal.last, self.path)

    @property
    def last_value(self) -> Any:
        """What this part was before its own last event."""
        return part_of(self.signal.history, self.path)

    @property
    def event(self) -> int:
        """The cycle of the last event of the whole, where this part changed in it."""
        event: int = self.signal.event
        return event if event == self.run.cycle and self.last != self.value else -1

    @property
    def active(self) -> int:
        """The number of the cycle in which the signal was active last."""
        return self.signal.active  # type: ignore[no-any-return]

    @property
    def last_event(self) -> int:
        """When the signal had an event last."""
        return self.signal.last_event  # type: ignore[no-any-return]

    @property
    def last_active(self) -> int:
        """When the signal was active last."""
        return self.signal.last_active  # type: ignore[no-any-return]

    @property
    def waiting(self) -> dict[Process, None]:
        """The processes that wait for the signal."""
        return self.signal.waiting  # type: ignore[no-any-return]


class PartDriver:
    """A driver of a part of a signal, as a subprogram gets it."""

    __slots__ = ("driver", "path", "position")

    def __init__(self, driver: Any, path: Path, position: int) -> None:
        self.driver = driver
        self.path = path
        self.position = position

    @property
    def next(self) -> Any:
        """The value that the part will have in the next cycle."""
        return part_of(self.driver.next, self.path)

    @property
    def value(self) -> Any:
        """The value that the part's driver has now."""
        return part_of(self.driver.value, self.path)

    def set(self, value: Any) -> None:
        """Drive the part in the next cycle."""
        self.driver.put(self.path, value, self.position)

    def put(self, path: Path, value: Any, position: int) -> None:
        """Drive a part of the part in the next cycle."""
        self.driver.put((*self.path, *path), value, position)

    def schedule(
        self, path: Path, waves: list[tuple[Any, int]], transport: bool, reject: int | None, position: int
    ) -> None:
        """Drive a part of the part later."""
        self.driver.schedule((*self.path, *path), waves, transport, reject, position)

    def part(self, path: Path, position: int) -> PartDriver:
        """The driver of a part of the part."""
        return PartDriver(self, path, position)


def _kept(before: list[tuple[int, Any]], at: int, value: Any) -> list[tuple[int, Any]]:
    """The transactions that an inertial one leaves: those just before it with its own value (10.5.2.2)."""
    kept: list[tuple[int, Any]] = []
    for wave in reversed([w for w in before if w[0] < at]):
        if wave[1] != value:
            break
        kept.append(wave)
    return kept[::-1]
