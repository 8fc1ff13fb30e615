"""A hierarchy of VHDL while it runs (IEEE 1076 clause 14.7).

One `Run` is one part of a design: everything of one hierarchy of VHDL. A simulation cycle takes two turns of the
kernel: in `update` all signals that were assigned to take their values, and what waits for them is made ready; in the
sweep after that processes run."""

from __future__ import annotations

from collections.abc import Callable, Generator, Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from obento.core.ir.part import Finished, Host, RunError
from obento.core.limits import LimitReached
from obento.core.values import Word
from obento.core.vhdl.model.values import Arr, lengths_differ, text_of
from obento.core.vhdl.runtime.composites import Path, part_of, replaced, resolver, undriven
from obento.core.vhdl.runtime.signals import LONG_AGO, Driver, Signal, View
from obento.core.vhdl.runtime.text_files import NAME_ERROR, OPEN_OK, File, Files


class Process:
    """What runs from wait to wait: a `body`, or a `step` that runs through each time it is woken and has its variables
    in `kept` between. `timed_out` when it goes on because its time is over."""

    __slots__ = (
        "begun",
        "body",
        "index",
        "kept",
        "listening",
        "name",
        "position",
        "postponed",
        "run",
        "step",
        "timed_out",
        "turn",
    )

    def __init__(self, run: Run, name: str, position: int) -> None:
        self.run = run
        self.name = name
        self.position = position
        self.body: Generator[None, None, None] | None = None
        self.step: Callable[[], None] | None = None
        self.kept: tuple[Any, ...] = ()
        self.begun = False
        self.listening: tuple[Signal, ...] = ()
        self.turn = 0
        self.timed_out = False
        self.postponed = False
        self.index = 0

    def go_on(self, _: Any = None) -> None:
        """Up to the next wait."""
        host = self.run.host
        host.rounds = host.depth = 0
        try:
            if self.step is not None:
                self.step()
                self.begun = True
            elif self.body is not None:
                next(self.body)
        except StopIteration:
            self.body = None
        except LimitReached as limit:
            if limit.position:
                raise
            raise LimitReached(limit.text, self.position, limit.hint) from None
        except RecursionError:
            raise LimitReached("a subprogram calls itself too deep", self.position) from None

    def take(self, body: Generator[None, None, None] | Callable[[], None]) -> None:
        """This is what it runs."""
        if callable(body):
            self.step = body
        else:
            self.body = body

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
        """Wait for no signal any more."""
        for signal in self.listening:
            signal.waiting.pop(self, None)
        self.listening = ()


@dataclass(frozen=True, slots=True)
class RunIdle:
    """A run on which nothing is left to happen: the number of the cycle, what signals, drivers and processes keep."""

    cycle: int
    signals: list[tuple[Any, ...]]
    drivers: list[tuple[Any, Any]]
    processes: list[tuple[tuple[Any, ...], int]]


SEVERITIES = ("note", "warning", "error", "failure")

Report = tuple[int, str, int]
"""A number of `SEVERITIES` (-1 for what is only printed), the text, where it stands."""


class Run:
    """Everything of one hierarchy while it runs. `make` declares signals and processes anew for each start; `prepare`
    comes once before it, and may raise LimitReached."""

    def __init__(self, prepare: Callable[[], None], make: Callable[[Run], None]) -> None:
        self.prepare = prepare
        self._make = make
        self.unfit = ""
        self.inputs: list[Any] = []
        self.cycle = 0
        self.due: list[Driver] = []
        self.due_next: list[Driver] = []
        self.ready: dict[Any, None] = {}
        self.late: dict[Process, None] = {}
        self.processes: list[Process] = []
        self.signals: list[Signal] = []
        self.mirrors: list[tuple[Signal, Any, Callable[[Any], Word]]] = []
        self.constants: list[Callable[[], None]] = []
        self.starting = False
        self.patient = False
        self.keeps_state = False
        """Whether anything but signals and the variables of processes keeps a state."""
        self.takers: dict[int, Callable[[Word], None]] = {}
        self.arrived: dict[int, Word] = {}
        self.host: Host = None  # type: ignore[assignment]
        self.scale = 1
        self.given: Mapping[int, Word] = {}
        self.failing = 3
        self.early: list[Report] = []
        """What was reported while constants, generics and start values were worked out: the first thing of every
        run."""
        self.files: Files = Files(None)

    # What the kernel asks.

    def start(self, host: Host, ticks_per_second: int, given: Mapping[int, Word]) -> None:
        """Begin anew: signals at their start values, processes ready to run."""
        self.host = host
        self.given = given
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
        for severity, text, position in self.early:
            if severity < 0:
                host.bench.say(text, position)
            else:
                self.say(severity, text, position)
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
            signal.history = signal.value
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
        """Whether some signal has a new value to take, or some process to go on."""
        return bool(self.due or self.due_next or self.ready or self.arrived or self.late)

    def update(self) -> None:
        """A simulation cycle: signals take their values, and what waits for them runs (14.7.5)."""
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
        """A signal of the outside has changed."""
        if signal in self.takers:
            self.arrived[signal] = word

    # Coming back to a state.

    def idle(self) -> RunIdle | None:
        """All there is where nothing is left to happen; None where that is not all: a process in the middle of its
        text, a shared variable, a file."""
        if self.keeps_state or self.pending or any(p.step is None for p in self.processes):
            return None
        return RunIdle(
            self.cycle,
            [s.state() for s in self.signals],
            [(d.value, d.next) for s in self.signals for d in s.drivers],
            [(p.kept, p.turn) for p in self.processes],
        )

    def go_back(self, idle: RunIdle) -> None:
        """Be as it was when this was taken."""
        self.due.clear()
        self.due_next.clear()
        self.ready.clear()
        self.late.clear()
        self.arrived.clear()
        self.cycle = idle.cycle
        drivers = iter(idle.drivers)
        for s, state in zip(self.signals, idle.signals, strict=True):
            s.go_back(state)
            for d in s.drivers:
                d.go_back(*next(drivers))
        for p, (kept, turn) in zip(self.processes, idle.processes, strict=True):
            p.kept, p.turn = kept, turn

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
        """The part of a value that a path leads to."""
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
            if number in self.given:
                signal.value = signal.last = read(self.given[number])

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
        """A time of ours in ticks of the kernel, rounded up."""
        return time if self.scale == 1 else -(-time // self.scale)

    def now(self) -> int:
        """Time in femtoseconds."""
        return self.host.now * self.scale

    def since(self, when: int) -> int:
        """How long ago something was, in femtoseconds."""
        return 2**63 - 1 if when == LONG_AGO else (self.host.now - when) * self.scale

    def signal(self, name: str, value: Any, spec: Any) -> Signal:
        """A new signal."""
        made = Signal(self, name, value, resolver(spec))
        self.signals.append(made)
        return made

    def process(
        self,
        body: Callable[..., Any],
        name: str,
        position: int,
        watched: Iterable[Signal],
        drivers: Iterable[Any],
        postponed: bool,
        edge: int | None,
    ) -> None:
        """A process with what wakes it and its drivers: (signal, first value, paths or None, kind of guard).

        With an `edge` only changes to that level (weak or strong) wake it.
        """
        process = Process(self, name, position)
        process.postponed = postponed
        made = [self.driver(*d) for d in drivers]
        process.take(body(process, *made))
        for signal in watched:
            if edge is None:
                signal.watchers.append(process)
            else:
                for level in (edge, edge + 4):
                    signal.at_level.setdefault(level, []).append(process)
        self.processes.append(process)

    def driver(self, signal: Signal, value: Any, paths: list[Path] | None, guard: str = "") -> Driver:
        """A new driver of a signal, or of parts of it."""
        if paths is None:
            return Driver(self, signal, value, True, guard)
        base = undriven(value)
        for path in paths:
            base = replaced(base, path, part_of(value, path), 0)
        return Driver(self, signal, base, False, guard)

    def say(self, severity: int, text: str, position: int) -> None:
        """A report or a failed assertion."""
        self.host.bench.report(SEVERITIES[severity], text, position)
        if severity >= self.failing:
            self.host.bench.ended(position)
            raise Finished(True, position)

    def open(self, file: File, name: Arr, mode: int, position: int) -> None:
        """Open a file that must be there."""
        status = self.files.open(file, text_of(name), mode)
        if status != OPEN_OK:
            why = "is not among the files given" if status == NAME_ERROR else "cannot be opened"
            raise RunError(f"the file `{text_of(name)}` {why}", position)

    def read_item(self, file: File, position: int) -> Any:
        """READ of a file of values (5.5.2)."""
        if file.at >= len(file.items):
            raise RunError("read past the end of a file", position)
        file.at += 1
        return file.items[file.at - 1]

    def write_item(self, file: File, value: Any, is_text: bool, position: int) -> None:
        """The implicit WRITE (5.5.2): a line of a file of values, or characters of a text as they are."""
        if isinstance(value, Arr) and (is_text or file.name == "STD_OUTPUT"):
            self.files.put(file, text_of(value), position)
            return
        self.files.values.setdefault(file.name, []).append(value)

    @staticmethod
    def same_length(a: int, b: int, position: int) -> None:
        """Raises RunError where two lengths are not the same."""
        if a != b:
            raise lengths_differ(b, a, position)

    @staticmethod
    def no_return(position: int, name: str) -> None:
        """A function came to its end without a value."""
        raise RunError(f"the function `{name}` ends without a return", position)

    def finish(self, failed: bool = False) -> None:
        """The bench ends the run."""
        raise Finished(failed)

    def look(self, position: int) -> None:
        """Once per round of a loop and per call: may it go on?"""
        host = self.host
        host.rounds += 1
        if host.rounds > host.most_rounds:
            host.many_rounds(position)

    def deeper(self, position: int) -> None:
        """One call further down; raises LimitReached when they nest too deep."""
        host = self.host
        host.depth += 1
        if host.depth > host.limits.call_depth * 8:
            raise LimitReached(
                f"calls nest deeper than {host.limits.call_depth * 8}", position, "does it call itself without end?"
            )
        self.look(position)
