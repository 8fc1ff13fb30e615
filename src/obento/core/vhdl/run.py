"""Signals, drivers and processes while they run (IEEE 1076 clauses 14.7 and 10.5).

One `Run` is one part of a design: everything of one hierarchy of VHDL. A simulation cycle takes two turns of the kernel: in
`update` all signals that were assigned to take their values, and what waits for them is made ready; in the sweep after that
processes run.
"""

from __future__ import annotations

from collections.abc import Callable, Generator, Iterable
from typing import Any

from obento.core.ir.part import Finished, Host, RunError
from obento.core.limits import LimitReached
from obento.core.values import Word
from obento.core.vhdl.files import NAME_ERROR, OPEN_OK, File, Files
from obento.core.vhdl.values import UNDRIVEN, Arr, lengths_differ, text_of

Path = tuple[Any, ...]
Resolve = Callable[[list[Any]], Any]

LONG_AGO = -(2**63)
_CHANGES_AT_ONE_MOMENT = 8


class Signal:
    """`event` and `active` are the numbers of the cycle in which it last had them."""

    __slots__ = (
        "active", "at_level", "drivers", "driving", "event", "forms", "held", "last", "last_active", "last_event", "links", "name", "plain",
        "queued", "resolve", "run", "value", "waiting", "watchers",
    )  # fmt: skip

    def __init__(self, run: Run, name: str, value: Any, resolve: Resolve | None) -> None:
        self.run = run
        self.name = name
        self.value = value
        self.last = value
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
        if len(self.drivers) != 1 or self.links or self.forms or self.held:
            return False
        driver = self.drivers[0]
        return driver.whole and not driver.guard and not getattr(self.resolve, "always", False)

    def compute(self) -> Any:
        """What all drivers make together."""
        drivers = self.drivers
        if drivers and drivers[0].guard:
            values = [d.value for d in drivers if d.value is not None]
            return self.resolve(values) if self.resolve and (values or drivers[0].guard == "bus") else self.value
        if len(drivers) == 1 and drivers[0].whole:
            value = drivers[0].value
            return value if self.resolve is None or not getattr(self.resolve, "always", False) else self.resolve([value])
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
        run = self.run
        self.active = run.cycle
        self.last_active = run.host.now
        if value != self.value:
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

    def __init__(self, run: Run, signal: Signal, value: Any, whole: bool, guard: str = "") -> None:
        self.run = run
        self.signal = signal
        self.value = self.next = value
        self.whole = whole
        self.queued = False
        self.guard = guard
        self.waves: dict[Path, list[tuple[int, Any]]] = {}
        signal.drivers.append(self)

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
            for key in [k for k in self.waves if _overlap(k, path)]:
                del self.waves[key]
        self.next = replaced(self.next, path, value, position)
        if not self.queued:
            self.queued = True
            self.run.due.append(self)

    def schedule(self, path: Path, waves: list[tuple[Any, int]], transport: bool, reject: int | None, position: int) -> None:
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
        return PartDriver(self, path, position)

    def _preempt(self, leaf: Path, new: list[tuple[int, Any]], transport: bool, reject: int | None) -> None:
        for key in [k for k in self.waves if k != leaf and _overlap(k, leaf)]:
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
    def run(self) -> Run:
        return self.signal.run  # type: ignore[no-any-return]

    @property
    def value(self) -> Any:
        return part_of(self.signal.value, self.path)

    @property
    def last(self) -> Any:
        return part_of(self.signal.last, self.path)

    @property
    def event(self) -> int:
        """The cycle of the last event of the whole, where this part changed in it."""
        event: int = self.signal.event
        return event if event == self.run.cycle and self.last != self.value else -1

    @property
    def active(self) -> int:
        return self.signal.active  # type: ignore[no-any-return]

    @property
    def last_event(self) -> int:
        return self.signal.last_event  # type: ignore[no-any-return]

    @property
    def last_active(self) -> int:
        return self.signal.last_active  # type: ignore[no-any-return]

    @property
    def waiting(self) -> dict[Process, None]:
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
        return part_of(self.driver.next, self.path)

    @property
    def value(self) -> Any:
        return part_of(self.driver.value, self.path)

    def set(self, value: Any) -> None:
        self.driver.put(self.path, value, self.position)

    def put(self, path: Path, value: Any, position: int) -> None:
        self.driver.put((*self.path, *path), value, position)

    def schedule(self, path: Path, waves: list[tuple[Any, int]], transport: bool, reject: int | None, position: int) -> None:
        self.driver.schedule((*self.path, *path), waves, transport, reject, position)

    def part(self, path: Path, position: int) -> PartDriver:
        return PartDriver(self, path, position)


class Process:
    """A body that runs from wait to wait. `timed_out` when it goes on because its time is over."""

    __slots__ = ("body", "index", "listening", "name", "position", "postponed", "run", "timed_out", "turn")

    def __init__(self, run: Run, name: str, position: int) -> None:
        self.run = run
        self.name = name
        self.position = position
        self.body: Generator[None, None, None] | None = None
        self.listening: tuple[Signal, ...] = ()
        self.turn = 0
        self.timed_out = False
        self.postponed = False
        self.index = 0

    def go_on(self, _: Any = None) -> None:
        """Up to the next wait."""
        host = self.run.host
        host.rounds = host.depth = 0
        if self.body is None:
            return
        try:
            next(self.body)
        except StopIteration:
            self.body = None
        except LimitReached as limit:
            if limit.position:
                raise
            raise LimitReached(limit.text, self.position, limit.hint) from None
        except RecursionError:
            raise LimitReached("a subprogram calls itself too deep", self.position) from None

    def listen(self, signals: tuple[Signal, ...], ticks: int | None, position: int) -> None:
        """Wait for an event on one of these, or for a time."""
        self.timed_out = False
        for signal in signals:
            signal.waiting[self] = None
        self.listening = signals
        if ticks is not None:
            if ticks < 0:
                raise RunError("the time to wait is negative", position)
            turn = self.turn

            def over() -> None:
                if self.turn == turn:
                    self.timed_out = True
                    self.run.ready[self] = None

            if ticks == 0:
                over()
            else:
                self.run.host.at(ticks, over)

    def stop_listening(self) -> None:
        for signal in self.listening:
            signal.waiting.pop(self, None)
        self.listening = ()


class Run:
    """Everything of one hierarchy while it runs. `make` declares signals and processes anew for each start."""

    def __init__(self, make: Callable[[Run], None], given: Iterable[int] = ()) -> None:
        self._make = make
        self.unfit = ""
        self.inputs: list[Any] = []
        self.cycle = 0
        self.due: list[Driver] = []
        self.due_next: list[Driver] = []
        self.ready: dict[Process, None] = {}
        self.late: dict[Process, None] = {}
        self.processes: list[Process] = []
        self.signals: list[Signal] = []
        self.mirrors: list[tuple[Signal, Any, Callable[[Any], Word]]] = []
        self.constants: list[Callable[[], None]] = []
        self.starting = False
        self.patient = False
        self.takers: dict[int, Callable[[Word], None]] = {}
        self.arrived: dict[int, Word] = {}
        self.host: Host = None  # type: ignore[assignment]
        self.scale = 1
        self.failing = 3
        self.files: Files = Files(None)

    # What the kernel asks.

    def start(self, host: Host, ticks_per_second: int) -> None:
        self.host = host
        self.scale = 10**15 // ticks_per_second
        self.cycle = 0
        self.due.clear()
        self.due_next.clear()
        self.ready.clear()
        self.late.clear()
        self.processes.clear()
        self.signals.clear()
        self.takers.clear()
        self.mirrors.clear()
        self.constants.clear()
        self.starting = True
        self.arrived.clear()
        self.files = Files(host.bench)
        self._make(self)
        for signal in self.signals:
            if signal.drivers:
                signal.driving = signal.compute()
                if not signal.held:
                    signal.value = signal.last = signal.driving
        for signal in self.signals:
            for form in signal.forms:
                form()
            for link in signal.links:
                link()
        for follow in self.constants:
            follow()
        self.settle_links()
        self.starting = False
        for signal in self.signals:
            signal.plain = signal.is_plain()
        self.patient = any(p.postponed for p in self.processes)
        for process in self.processes:
            process.index = host.add_process(process.go_on, process.position)
            host.run_soon(process.index)

    def settle_links(self) -> None:
        """What joins signals has run once; drivers it made wait their turn are taken in at once."""
        for _ in range(64):
            if not self.due:
                return
            due, self.due = self.due, []
            for driver in due:
                driver.queued = False
                driver.value = driver.next
                signal = driver.signal
                signal.driving = signal.compute()
                for form in signal.forms:
                    form()
                if not signal.held:
                    signal.value = signal.last = signal.driving
                for link in signal.links:
                    link()

    @property
    def pending(self) -> bool:
        return bool(self.due or self.due_next or self.ready or self.arrived or self.late)

    def update(self) -> None:
        self.cycle = cycle = self.cycle + 1
        now, ready = self.host.now, self.ready
        if self.due_next:
            self.due += self.due_next
            self.due_next = []
        if self.arrived:
            arrived = dict(self.arrived)
            self.arrived.clear()
            for signal_id, word in arrived.items():
                self.takers[signal_id](word)
        while self.due:
            due, self.due = self.due, []
            touched: list[Signal] = []
            for driver in due:
                driver.queued = False
                value = driver.value = driver.next
                signal = driver.signal
                if signal.plain:
                    signal.active = cycle
                    signal.last_active = now
                    if value != signal.value:
                        signal.last, signal.value = signal.value, value
                        signal.event = cycle
                        signal.last_event = now
                        for process in signal.watchers:
                            ready[process] = None
                        if signal.at_level:
                            ready.update(dict.fromkeys(signal.at_level.get(value, ())))
                        if signal.waiting:
                            ready.update(signal.waiting)
                elif not signal.queued:
                    signal.queued = True
                    touched.append(signal)
            for signal in touched:
                signal.queued = False
                signal.refresh()
        run_soon = self.host.run_soon
        awake = list(ready)
        ready.clear()
        if self.patient:
            self.late.update(dict.fromkeys(p for p in awake if p.postponed))
            awake = [p for p in awake if not p.postponed]
            if not awake and not self.due:
                awake = list(self.late)
                self.late.clear()
        for process in awake:
            process.turn += 1
            if process.listening:
                process.stop_listening()
            run_soon(process.index)

    def changed(self, signal: int, word: Word) -> None:
        if signal in self.takers:
            self.arrived[signal] = word

    # Joining signals: ports that are not one with what is connected, and the outside.

    def join_in(self, formal: Signal, path: Path, roots: Iterable[Signal], compute: Callable[[], Any]) -> None:
        """A port follows a value made of other signals, within the same cycle."""
        formal.held = True

        def follow() -> None:
            value = compute()
            new = replaced(formal.value, path, value, 0) if path else value
            if self.starting:
                formal.value = formal.last = new
                for link in formal.links:
                    link()
            else:
                formal.take(new)

        for root in roots:
            root.links.append(follow)
        follow_at_start = follow
        self.constants.append(follow_at_start)

    def join_out(self, formal: Signal, driver: Driver, path: Path, compute: Callable[[], Any]) -> None:
        """What is connected to an output gets what drives the port."""

        def hand_on() -> None:
            if path:
                driver.put(path, compute(), 0)
            else:
                driver.set(compute())

        formal.forms.append(hand_on)

    @staticmethod
    def part(value: Any, path: Path) -> Any:
        return part_of(value, path) if path else value

    def delayed(self, made: Signal, source: Signal, time: int) -> None:
        """`S'delayed(T)`: the same values later (16.2.4)."""
        driver = Driver(self, made, made.value, True)

        def follow() -> None:
            if self.starting:
                made.value = made.last = driver.value = driver.next = source.value
            elif source.event == self.cycle and time:
                driver.schedule((), [(source.value, self.ticks(time))], True, None, 0)
            elif source.event == self.cycle:
                driver.next = source.value
                self.due_next.append(driver)

        root = source.signal if isinstance(source, View) else source
        root.links.append(follow)

    def transaction(self, made: Signal, source: Signal) -> None:
        """`S'transaction`: turns whenever the signal is active."""

        def turn() -> None:
            if not self.starting:
                made.take(1 - made.value)

        root = source.signal if isinstance(source, View) else source
        root.links.append(turn)

    def outside(self, signal: Signal, design_signal: Any, read: Callable[[Word], Any], both_ways: bool) -> None:
        """A port of the whole follows a signal of the design."""
        number: int = design_signal.id
        if both_ways:
            driver = Driver(self, signal, read(self.host.words[number]), True)
            self.takers[number] = lambda word: driver.set(read(word))
        else:
            self.takers[number] = lambda word: signal.take(read(word))

    def show(self, signal: Signal, design_signal: Any, write: Callable[[Any], Word]) -> None:
        """A signal of the design follows a port of the whole."""
        number: int = design_signal.id

        def hand_on() -> None:
            word = write(signal.value)
            if self.host.words[number] != word:
                self.host.change(number, word)

        signal.links.append(hand_on)
        signal.plain = False

    def mirror(self, signal: Signal, design_signal: Any, write: Callable[[Any], Word]) -> None:
        """A signal that waveforms can show."""
        self.mirrors.append((signal, design_signal, write))

    def show_all(self) -> None:
        """From now on every signal is to be seen from outside."""
        for signal, design_signal, write in self.mirrors:
            self.host.words[design_signal.id] = write(signal.value)
            self.show(signal, design_signal, write)

    # What bodies ask.

    def ticks(self, time: int) -> int:
        return time if self.scale == 1 else -(-time // self.scale)

    def now(self) -> int:
        """Time in femtoseconds."""
        return self.host.now * self.scale

    def since(self, when: int) -> int:
        """How long ago something was, in femtoseconds."""
        return 2**63 - 1 if when == LONG_AGO else (self.host.now - when) * self.scale

    def signal(self, name: str, value: Any, spec: Any) -> Signal:
        made = Signal(self, name, value, resolver(spec))
        self.signals.append(made)
        return made

    def process(
        self, body: Callable[..., Any], name: str, position: int, watched: Iterable[Signal], drivers: Iterable[Any], postponed: bool, edge: int | None
    ) -> None:
        """A process with what wakes it and its drivers: (signal, first value, paths or None, kind of guard).

        With an `edge` only changes to that level (weak or strong) wake it.
        """
        process = Process(self, name, position)
        process.postponed = postponed
        made = [self.driver(*d) for d in drivers]
        process.body = body(process, *made)
        for signal in watched:
            if edge is None:
                signal.watchers.append(process)
            else:
                for level in (edge, edge + 4):
                    signal.at_level.setdefault(level, []).append(process)
        self.processes.append(process)

    def driver(self, signal: Signal, value: Any, paths: list[Path] | None, guard: str = "") -> Driver:
        if paths is None:
            return Driver(self, signal, value, True, guard)
        base = undriven(value)
        for path in paths:
            base = replaced(base, path, part_of(value, path), 0)
        return Driver(self, signal, base, False, guard)

    def say(self, severity: int, text: str, position: int) -> None:
        """A report or a failed assertion."""
        self.host.bench.say(f"{('note', 'warning', 'error', 'failure')[severity]}: {text}\n", position)
        if severity >= self.failing:
            raise Finished(failed=True)

    def open(self, file: File, name: Arr, mode: int, position: int) -> None:
        """Open a file that must be there."""
        status = self.files.open(file, text_of(name), mode)
        if status != OPEN_OK:
            why = "is not among the files given" if status == NAME_ERROR else "cannot be opened"
            raise RunError(f"the file `{text_of(name)}` {why}", position)

    def read_item(self, file: File, position: int) -> Any:
        if file.at >= len(file.items):
            raise RunError("read past the end of a file", position)
        file.at += 1
        return file.items[file.at - 1]

    def write_item(self, file: File, value: Any, position: int) -> None:
        if isinstance(value, Arr) and file.name == "STD_OUTPUT":
            self.files.put(file, text_of(value), position)
            return
        self.files.values.setdefault(file.name, []).append(value)

    @staticmethod
    def same_length(a: int, b: int, position: int) -> None:
        if a != b:
            raise lengths_differ(b, a, position)

    @staticmethod
    def no_return(position: int, name: str) -> None:
        raise RunError(f"the function `{name}` ends without a return", position)

    def finish(self, failed: bool = False) -> None:
        raise Finished(failed)

    def look(self, position: int) -> None:
        """Once per round of a loop and per call: may it go on?"""
        host = self.host
        host.rounds += 1
        if host.rounds > host.most_rounds:
            host.many_rounds(position)

    def deeper(self, position: int) -> None:
        host = self.host
        host.depth += 1
        if host.depth > host.limits.call_depth * 8:
            raise LimitReached(f"calls nest deeper than {host.limits.call_depth * 8}", position, "does it call itself without end?")
        self.look(position)


def _kept(before: list[tuple[int, Any]], at: int, value: Any) -> list[tuple[int, Any]]:
    """The transactions that an inertial one leaves: those just before it with its own value (10.5.2.2)."""
    kept: list[tuple[int, Any]] = []
    for wave in reversed([w for w in before if w[0] < at]):
        if wave[1] != value:
            break
        kept.append(wave)
    return kept[::-1]


def _overlap(a: Path, b: Path) -> bool:
    size = min(len(a), len(b))
    for x, y in zip(a[:size], b[:size], strict=True):
        if x == y:
            continue
        if x[0] == "s" or y[0] == "s":
            low_x, high_x = (x[1], x[1]) if x[0] == "i" else (min(x[1], x[2]), max(x[1], x[2]))
            low_y, high_y = (y[1], y[1]) if y[0] == "i" else (min(y[1], y[2]), max(y[1], y[2]))
            return bool(low_x <= high_y and low_y <= high_x)
        return False
    return True


def leaves(value: Any, path: Path) -> Iterable[tuple[Path, Any]]:
    """The scalar parts of a value with their places, after a path that leads to it."""
    if isinstance(value, Arr):
        if path and path[-1][0] == "s":
            _, left, _, step = path[-1]
            prefix = path[:-1]
        else:
            left, step, prefix = value.left, value.step, path
        for i, part in enumerate(value.v):
            yield from leaves(part, (*prefix, ("i", left + i * step)))
    elif isinstance(value, tuple):
        for i, part in enumerate(value):
            yield from leaves(part, (*path, ("f", i)))
    else:
        yield path, value


def part_of(value: Any, path: Path) -> Any:
    for step in path:
        if step[0] == "i":
            value = value.at(step[1], 0)
        elif step[0] == "s":
            value = value.part(step[1], step[2], step[3], 0)
        else:
            value = value[step[1]]
    return value


def replaced(value: Any, path: Path, part: Any, position: int) -> Any:
    """A value with one part of it exchanged."""
    if not path:
        return part
    step, rest = path[0], path[1:]
    if step[0] == "i":
        return value.put(step[1], replaced(value.at(step[1], position), rest, part, position) if rest else part, position)
    if step[0] == "s":
        inner = value.part(step[1], step[2], step[3], position)
        return value.put_part(step[1], step[2], step[3], replaced(inner, rest, part, position) if rest else part, position)
    return (*value[: step[1]], replaced(value[step[1]], rest, part, position) if rest else part, *value[step[1] + 1 :])


def undriven(value: Any) -> Any:
    """The shape of a value with nothing in it driven."""
    if isinstance(value, Arr):
        if type(value.v) is bytes:
            return Arr(value.left, value.step, bytes([UNDRIVEN]) * len(value.v))
        return Arr(value.left, value.step, tuple(undriven(x) for x in value.v))
    if isinstance(value, tuple):
        return tuple(undriven(x) for x in value)
    return None


def merge(values: list[Any], before: Any) -> Any:
    """Parts that different processes drive, put together; nothing is driven twice. What nobody drives stays."""
    first = next((x for x in values if x is not None), None)
    if isinstance(before, Arr):
        whole = [x for x in values if isinstance(x, Arr)]
        if type(before.v) is bytes:
            joined = bytes(next((c for c in column if c != UNDRIVEN), old) for old, *column in zip(before.v, *(x.v for x in whole), strict=True))
            return Arr(before.left, before.step, joined)
        return Arr(before.left, before.step, tuple(merge(list(column), old) for old, *column in zip(before.v, *(x.v for x in whole), strict=True)))
    if isinstance(before, tuple):
        records = [x for x in values if isinstance(x, tuple)]
        return tuple(merge(list(column), old) for old, *column in zip(before, *records, strict=True))
    return before if first is None else first


def completed(value: Any, before: Any) -> Any:
    """A resolved value with what nobody drives left as it was."""
    if value is None:
        return before
    if isinstance(value, Arr):
        if type(value.v) is bytes:
            if UNDRIVEN not in value.v:
                return value
            return Arr(value.left, value.step, bytes(old if c == UNDRIVEN else c for c, old in zip(value.v, before.v, strict=True)))
        return Arr(value.left, value.step, tuple(completed(c, old) for c, old in zip(value.v, before.v, strict=True)))
    if isinstance(value, tuple):
        return tuple(completed(c, old) for c, old in zip(value, before, strict=True))
    return value


def resolver(spec: Any) -> Resolve | None:
    """A function that resolves values element by element.

    `spec` is None (unresolved), ("with", function) for a whole, ("each", spec of the element) or ("fields", specs).
    """
    if spec is None:
        return None
    kind, inner = spec
    if kind == "with":
        return inner  # type: ignore[no-any-return]
    if kind == "each":
        if inner[0] == "with" and hasattr(inner[1], "packed"):
            packed = inner[1].packed

            def resolve_packed(values: list[Any]) -> Any:
                if len(values) == 1 and UNDRIVEN not in values[0].v:
                    return values[0]
                return Arr(values[0].left, values[0].step, packed([x.v for x in values]))

            return resolve_packed
        element = _of_driven(resolver(inner))

        def resolve_each(values: list[Any]) -> Any:
            first = values[0]
            if type(first.v) is bytes:
                columns = ([c for c in column if c != UNDRIVEN] for column in zip(*(x.v for x in values), strict=True))
                return Arr(first.left, first.step, bytes(element(c) if c else UNDRIVEN for c in columns))
            return Arr(first.left, first.step, tuple(element(list(column)) for column in zip(*(x.v for x in values), strict=True)))

        return resolve_each
    parts = [_of_driven(resolver(s)) for s in inner]

    def resolve_fields(values: list[Any]) -> Any:
        return tuple(part(list(column)) for part, column in zip(parts, zip(*values, strict=True), strict=True))

    return resolve_fields


def _of_driven(resolve: Resolve | None) -> Resolve:
    def only_driven(values: list[Any]) -> Any:
        driven = [x for x in values if x is not None]
        if not driven:
            return None
        return merge(driven, driven[0]) if resolve is None else resolve(driven)

    return only_driven
