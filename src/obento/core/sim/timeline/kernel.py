"""The timeline: one sequence of events through a Design. Kept plain; the oracle of everything faster.

Order of events (IEEE 1364-2005 clause 11, which leaves ties open; ours are settled so that runs repeat exactly):
processes that became runnable run in sweeps, each sweep in order of elaboration. A process woken while its turn in the
running sweep is still to come is not queued a second time. When no process is left, those that wait for `#0` go on;
then non-blocking updates take effect together in the order they were made; then the step ends, and time goes on to the
next event. `always` processes already wait when power-up begins; while one runs it does not wait, and so misses its own
events. A continuous assignment that reads what it drives does see its own change, and runs again."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from heapq import heappop, heappush
from types import MappingProxyType
from typing import cast

from obento.core import values as v
from obento.core.ir import collections
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import power_up_words
from obento.core.ir.evaluate import round_half_away
from obento.core.ir.nodes import Await, Block, Stmt
from obento.core.ir.signal import Signal
from obento.core.limits import LimitReached, Limits, TimeIsUp
from obento.core.sim.bench.file_tasks import CircuitBench
from obento.core.sim.bench.functions import Bench
from obento.core.sim.timeline.events import WHOLE, is_event, term_of, watchers_of
from obento.core.sim.timeline.expressions import NOWHERE, namespace, put
from obento.core.sim.timeline.forces import Holds
from obento.core.sim.timeline.idle import Idle
from obento.core.sim.timeline.statements import Emitter
from obento.core.sim.timeline.threads import Body, Disabled, Group, Killed, Thread
from obento.core.values import Word

_NOBODY: frozenset[int] = frozenset()
_LOOK_AT_CLOCK = 4_096
_LOOK_AT_LOOP = 256


_NOTHING = Process("always", Block(0), [], 0, "nothing")


class DidNotSettle(Exception):
    """Still changing after `Limits.deltas` sweeps; `signals` names some that keep moving, `position` a part that moves
    them."""

    def __init__(self, signals: list[str], position: int = 0) -> None:
        super().__init__(f"does not settle: {', '.join(signals)}")
        self.signals = signals
        self.position = position


class Timeline:
    """Holds the words of all signals; `power_up`, then any number of `apply`, or one `run` of a bench."""

    def __init__(self, design: Design, limits: Limits | None = None, bench: Bench | None = None) -> None:
        self.design = design
        self.limits = limits or Limits()
        self.bench = bench or CircuitBench()
        self.words: list[Word] = []
        self.now = 0
        self.depth = 0
        self.rounds = 0
        self.most_rounds = _LOOK_AT_LOOP
        self.current: Thread | None = None
        self.changed: set[int] | None = None
        self.triggered: dict[int, int] = {}
        """When each named event has happened last."""
        self._expired = self.limits.expired
        self._start = power_up_words(design)
        self._watchers = watchers_of(design)
        self._deaf = [p.kind != "continuous" for p in design.processes]
        self._watched = [bool(w) for w in self._watchers]
        self._special = [s.element > 0 or s.held or not s.has_digits for s in design.signals]
        self._collections = [(s.id, s.collection) for s in design.signals if s.collection is not None]
        self._arrays = [s.id for s in design.signals if s.element > 0]
        self._inputs = {signal.id: part for part in design.parts for signal in part.inputs}
        for number in self._inputs:
            self._watched[number] = True
        self._emit()
        self._reset()

    def _emit(self) -> None:
        emitter = Emitter()
        # What a part does by itself is not run a second time.
        processes = [_NOTHING if p.shadow else p for p in self.design.processes]
        threaded = [emitter.process(f"p{i}", i, process) for i, process in enumerate(processes)]
        for i, process in enumerate(self.design.finals):
            emitter.process(f"final{i}", len(processes) + i, process)
        names = namespace() | {"Disabled": Disabled, "kinds": emitter.kinds}
        try:
            code = compile(emitter.source(), f"<{self.design.unit}>", "exec")
        except (SyntaxError, RecursionError, MemoryError) as error:
            position = emitter.position_of(error.lineno or 0) if isinstance(error, SyntaxError) else 0
            raise LimitReached(f"`{self.design.unit}` nests deeper than can be run", position) from error
        exec(code, names)  # our own text, made above
        self._bodies = [names[f"p{i}"] for i in range(len(threaded))]
        self._finals = [cast(Callable[[Timeline], None], names[f"final{i}"]) for i in range(len(self.design.finals))]
        self._plain: list[Callable[[Timeline], None] | None] = [
            None if generator else cast(Callable[[Timeline], None], body)
            for generator, body in zip(threaded, self._bodies, strict=True)
        ]
        for watches in emitter.watches:
            for w in watches:
                self._watched[w.signal.id] = True
        self._awaited = [[(w.signal.id, *term_of(w)) for w in watches] for watches in emitter.watches]
        self.bench.prepare(self, emitter.calls)
        for part in self.design.parts:
            part.prepare()

    def _reset(self) -> None:
        self._clear()
        del self._plain[len(self._bodies) :]
        self._positions: list[int] = []
        self._made = len(self.design.processes)

    def _clear(self) -> None:
        """Nothing is left to happen; the processes of parts are still known."""
        self._now: set[int] | frozenset[int] = _NOBODY
        self._next: set[int] = set()
        self._inactive: set[int] = set()
        self._later: list[tuple[int, Word] | tuple[int, int, int, Word]] = []
        self.soon = self._later.append
        self._agenda: list[tuple[int, int, Callable[[], None]]] = []
        self._sequence = 0
        self._running = -1
        self._threads: dict[int, Thread] = {}
        self._waiting: list[dict[int, list[tuple[int, int, int]]]] = [{} for _ in self.design.signals]
        self._inside: dict[int, list[Thread]] = {}
        self._driven: dict[tuple[int, int], Word] = {}
        self._pending: dict[tuple[int, int], tuple[int, Word]] = {}
        self.holds = Holds(self._show)
        self.triggered.clear()
        self._sweeps = 0
        self.now = 0

    # The outside.

    def power_up(self) -> None:
        """All signals at their start values, then everything that runs of itself, until idle.

        Raises
        ------
        DidNotSettle, LimitReached
        """
        self.start()
        self.settle()

    def idle(self) -> Idle | None:
        """All there is, to come back to by `go_back`, where nothing is left to happen. None where that is not all:
        a process in the middle of its text, a part with a run-time of its own, a file that is open, a signal held."""
        if self._threads or self.holds.held or not self.bench.is_idle():
            return None
        parts = [part.idle() for part in self.design.parts]
        if any(part is None for part in parts):
            return None
        return Idle(self._copied(self.words), dict(self._driven), self.now, self.bench.seed, parts)

    def go_back(self, idle: Idle) -> None:
        """Be as it was when this was taken."""
        if self._next or self._now or self._inactive or self._later or self._agenda or self._threads:
            self._clear()  # a run was ended in the middle of something
            self._made = len(self._plain)
        if not self.bench.is_idle():
            self.bench.power_up()
        self.words = self._copied(idle.words)
        self._driven = dict(idle.driven)
        self._pending.clear()
        self.triggered.clear()
        self.now = idle.now
        self.bench.seed = idle.seed
        for part, state in zip(self.design.parts, idle.parts, strict=True):
            part.go_back(state)

    def _copied(self, words: list[Word]) -> list[Word]:
        copied = words.copy()
        for number in self._arrays:
            copied[number] = cast(Word, cast(list[Word], words[number]).copy())
        for number, of in self._collections:
            copied[number] = cast(Word, collections.copied(of, cast(collections.Collection, words[number])))
        return copied

    def empty(self, signal: int) -> object:
        """What a variable of a call without digits begins with."""
        return self.design.signals[signal].started()

    def start(self, given: Mapping[int, Word] = MappingProxyType({})) -> None:
        """All signals at their start values, and what runs of itself ready to run.

        `given` (numbers of input signals to words) are there from the beginning: for parts as values, for everything
        else as events."""
        self._reset()
        self.words = [self._start_value(s, w) for s, w in zip(self.design.signals, self._start, strict=True)]
        for signal in self.design.signals:
            if signal.held:
                self.holds.may_hold(signal, self.words[signal.id])
        self.bench.power_up()
        for index, process in enumerate(self.design.processes):
            if self._plain[index] is None:
                self._threads[index] = Thread(index, cast(Callable[[Timeline], Body], self._bodies[index])(self))
            if process.kind == "forever" and _waits_first(process.body):
                self._resume(index)  # it waits already
            elif process.kind != "always" and not process.shadow:
                self._next.add(index)
        if given:
            given = self._handed_on(given)
        for part in self.design.parts:
            part.start(self, 10**-self.design.precision, given)
            if self.design.is_seen_inside:
                part.show_all()

    def _handed_on(self, given: Mapping[int, Word]) -> Mapping[int, Word]:
        """Set inputs before parts begin: what these and plain wires make of the inputs of parts."""
        for number, word in given.items():
            if self.words[number] != word:
                self.change(number, word)
        if not all(signal.id in given for part in self.design.parts for signal in part.inputs):
            for _ in range(self.limits.deltas):
                if not self._next:
                    break
                self._sweep()
        return {signal.id: self.words[signal.id] for part in self.design.parts for signal in part.inputs}

    # What parts with a run-time of their own ask.

    def add_process(self, run: Callable[[object], None], position: int) -> int:
        """A process of a part; it runs when it is asked to, in the order of being added."""
        self._plain.append(run)
        self._positions.append(position)
        self._made = len(self._plain)
        return len(self._plain) - 1

    def run_soon(self, index: int) -> None:
        """Run a process in the next sweep."""
        self._next.add(index)

    def at(self, ticks: int, action: Callable[[], None]) -> None:
        """Do something after so many ticks."""
        self._at(ticks, action)

    @staticmethod
    def _start_value(signal: Signal, word: Word) -> Word:
        if signal.collection is not None:
            return cast(Word, signal.started())
        if not signal.has_digits:
            blank = "" if signal.text else 0.0
            return cast(Word, [blank] * (signal.width // 64) if signal.element else signal.started())
        if signal.element:
            return cast(
                Word,
                [v.select(word, signal.width, at, signal.element) for at in range(0, signal.width, signal.element)],
            )
        return word

    def apply(self, inputs: Mapping[str, Word]) -> None:
        """Set input ports together, then settle."""
        for name, word in inputs.items():
            signal = self.design.port(name).signal
            if self.words[signal.id] != word:
                self.change(signal.id, word)
        self.settle()

    def value(self, port: str) -> Word:
        """The word at a port."""
        return self.words[self.design.port(port).signal.id]

    def settle(self) -> None:
        """Run until nothing is left to happen; delays are waited for.

        Raises
        ------
        DidNotSettle, LimitReached
        """
        steps = 0
        while True:
            self._step()
            if not self._agenda:
                return
            steps += 1
            if steps > self.limits.time_steps:
                raise DidNotSettle(["it goes on for ever"])
            self._advance()

    def run(self, until: int | None = None) -> None:
        """Run as a bench after `start`: until nothing is left to happen, it finishes, or time is past `until` ticks.

        Raises
        ------
        Finished, DidNotSettle, LimitReached
        """
        steps = 0
        while True:
            self._step()
            self.bench.end_of_step()
            if not self._agenda or (until is not None and self._agenda[0][0] > until):
                return
            steps += 1
            if steps > self.limits.time_steps:
                raise LimitReached(
                    f"it still runs after {self.limits.time_steps} steps of time",
                    0,
                    "does the bench ever end: $finish, or a wait without end?",
                )
            self._advance()

    def run_finals(self) -> None:
        """What a bench does once it has come to its end (1800 clause 9.2.3).

        Raises
        ------
        Finished, LimitReached
        """
        for body in self._finals:
            self.rounds = self.depth = 0
            body(self)

    def unfinished(self) -> list[int]:
        """Positions of `initial` processes that still wait."""
        processes = self.design.processes
        return [processes[i].position for i in self._threads if i < len(processes) and processes[i].kind == "initial"]

    # One step of time.

    def _step(self) -> None:
        sweeps = 0
        parts = self.design.parts
        while True:
            while self._next:
                sweeps += 1
                if sweeps > self.limits.deltas:
                    raise DidNotSettle(*self._moving())
                self._sweep()
            if self._inactive:
                self._next, self._inactive = self._inactive, set()
            elif self._later or (parts and any(part.pending for part in parts)):
                sweeps += not self._later
                if sweeps > self.limits.deltas:
                    raise DidNotSettle(*self._moving())
                self._update()
            else:
                return

    def _update(self) -> None:
        """The non-blocking updates that are due, in the order they were made."""
        updates = self._later.copy()
        self._later.clear()
        words, watched, dumped = self.words, self._watched, self.changed is not None
        for update in updates:
            if len(update) > 2:
                self.write(*update)
                continue
            signal, word = update
            if words[signal] != word:
                if dumped or watched[signal]:
                    self.change(signal, word)
                else:
                    words[signal] = word
        for part in self.design.parts:
            if part.pending:
                part.update()

    def _sweep(self) -> None:
        self._sweeps += 1
        if not self._sweeps % _LOOK_AT_CLOCK:
            self.most_rounds = _LOOK_AT_LOOP
            if self._expired():
                raise TimeIsUp("it takes too long", self._moving()[1])
        self._now, self._next = self._next, set()
        plain = self._plain
        known = len(plain)
        # In order: whatever of this sweep comes after the running process has still to run, all before has run.
        for index in sorted(self._now):
            self._running = index
            body = plain[index] if index < known else None
            if body is not None:
                body(self)
            else:
                self.rounds = self.depth = 0
                self._resume(index)
        self._running = -1
        self._now = _NOBODY

    def _advance(self) -> None:
        self.now = self._agenda[0][0]
        while self._agenda and self._agenda[0][0] == self.now:
            heappop(self._agenda)[2]()

    def _at(self, ticks: int, action: Callable[[], None]) -> int:
        self._sequence += 1
        heappush(self._agenda, (self.now + ticks, self._sequence, action))
        return self._sequence

    def _moving(self) -> tuple[list[str], int]:
        processes = [self.design.processes[i] for i in sorted(self._next | self._now) if i < len(self.design.processes)]
        signals = {w.signal.name for p in processes for w in p.watches}
        own = [
            self._positions[i - len(self._bodies)]
            for i in sorted(self._next | self._now)
            if 0 <= i - len(self._bodies) < len(self._positions)
        ]
        return sorted(signals)[:6], processes[0].position if processes else own[0] if own else 0

    # Threads: processes that wait.

    def _resume(self, index: int) -> None:
        thread = self._threads.get(index)
        if thread is None:
            return
        before, self.current = self.current, thread
        try:
            thread.go_on()
        except StopIteration:
            self._end(thread)
        except (Killed, Disabled):
            self._end(thread)
        except RecursionError:
            raise LimitReached("a task calls itself too deep", self._position(thread)) from None
        finally:
            self.current = before

    def _position(self, thread: Thread) -> int:
        while thread.parent is not None:
            thread = thread.parent
        return self.design.processes[thread.index].position if thread.index < len(self.design.processes) else 0

    def _end(self, thread: Thread) -> None:
        thread.alive = False
        self._forget(thread)
        self._threads.pop(thread.index, None)
        if thread.group is not None and thread.group.joiner is not None:
            self._next.add(thread.group.joiner.index)

    def _forget(self, thread: Thread) -> None:
        """Let a thread wait for nothing any more."""
        for signal in thread.listening:
            self._waiting[signal].pop(thread.index, None)
        thread.listening = ()
        thread.turn += 1

    def _wake(self, index: int) -> None:
        thread = self._threads.get(index)
        if thread is not None:
            self._forget(thread)
            self._next.add(index)

    def sleep(self, ticks: int) -> None:
        """The running thread goes on after so many ticks; after none, in the inactive region (5.3)."""
        thread = self._thread()
        if ticks <= 0:
            self._inactive.add(thread.index)
            return
        turn = thread.turn
        self._at(ticks, lambda: self._wake(thread.index) if thread.alive and thread.turn == turn else None)

    def listen(self, number: int) -> None:
        """The running thread goes on at an event of those with this number."""
        thread = self._thread()
        for signal, edge, low, width in self._awaited[number]:
            self._waiting[signal].setdefault(thread.index, []).append((edge, low, width))
        thread.listening = tuple({w[0] for w in self._awaited[number]})

    def _thread(self) -> Thread:
        assert self.current is not None, "only a thread waits"
        return self.current

    def fork(self, bodies: Iterable[Body], is_hidden: bool = False) -> Group:
        """Start bodies side by side below the running thread; gives what joins them."""
        group = Group(is_hidden=is_hidden)
        parent = self._thread()
        parent.children = [t for t in parent.children if t.goes_on()]
        for body in bodies:
            thread = Thread(self._made, body, parent, group)
            self._made += 1
            self._threads[thread.index] = thread
            parent.children.append(thread)
            group.members.append(thread)
            self._next.add(thread.index)
        if len(self._threads) > self.limits.forks + len(self.design.processes):
            raise LimitReached(f"more than {self.limits.forks} activities run side by side", self._position(parent))
        return group

    def unjoined(self, group: Group, any_is_enough: bool) -> bool:
        """Whether the thread that forked must still wait; if so it is woken when a member ends."""
        ended = sum(not t.alive for t in group.members)
        if ended == len(group.members) or (any_is_enough and ended):
            group.joiner = None
            return False
        group.joiner = self._thread()
        return True

    def forked(self) -> bool:
        """Whether something that the running thread forked is alive: then it is woken when one of it ends."""
        return self._thread().waits_for_forked()

    def end_forked(self) -> None:
        """End everything that the running thread forked, and what that has (1800 clause 9.6.3)."""
        thread = self._thread()
        hidden = thread.set_hidden_aside()
        self._kill_children(thread)
        thread.children += hidden

    # Blocks that can be disabled.

    def enter(self, label: int) -> Thread:
        """The running thread enters a labelled block, for whoever disables it."""
        thread = self._thread()
        self._inside.setdefault(label, []).append(thread)
        return thread

    def leave(self, label: int, thread: Thread) -> None:
        """A thread is out of a block; whoever made it go, and be it the end of the run."""
        inside = self._inside.get(label, [])
        if thread in inside:
            inside.remove(thread)

    def disable(self, label: int) -> None:
        """End every activity inside a block; the caller's own by an exception."""
        caller = self.current
        inside = list(self._inside.get(label, ()))
        for thread in inside:
            self._kill_children(thread)
            if thread is not caller:
                self._forget(thread)
                self._inactive.discard(thread.index)
                thread.pending = Disabled(label)
                self._next.add(thread.index)
        if caller is None or caller in inside:
            raise Disabled(label)
        if not caller.alive:
            raise Killed

    def _kill_children(self, thread: Thread) -> None:
        for child in thread.children:
            self._kill_children(child)  # of one that has ended, too: they go on by themselves
            if child.alive:
                child.group = None
                self._end(child)
                self._next.discard(child.index)
                self._inactive.discard(child.index)
                if child is not self.current:
                    child.body.close()
        thread.children.clear()

    # Changes.

    def change(self, signal: int, word: Word) -> None:
        """A new word for a signal: wake what watches it."""
        old = self.words[signal]
        self.words[signal] = word
        for edge, low, width, indices in self._watchers[signal]:
            if edge != WHOLE and not is_event(edge, old, word, low, width):
                continue
            if not self._now:
                self._next.update(indices)
                continue
            for index in indices:
                if index > self._running and index in self._now:
                    continue
                if index != self._running or not self._deaf[index]:
                    self._next.add(index)
        waiting = self._waiting[signal]
        if waiting:
            for index, terms in list(waiting.items()):
                if any(is_event(edge, old, word, low, width) for edge, low, width in terms):
                    self._wake(index)
        if self.changed is not None:
            self.changed.add(signal)
        if signal in self._inputs:
            self._inputs[signal].changed(signal, word)
        if signal in self.holds.followers:
            self.holds.follow(signal, word)

    def write(self, signal: int, low: int, width: int, word: Word) -> None:
        """Set some digits; those outside the signal vanish (5.2.1)."""
        if self._special[signal]:
            self._write_special(signal, low, width, word)
            return
        old = self.words[signal]
        new = put(old, self.design.signals[signal].width, low, width, word)
        if new != old:
            self.change(signal, new)

    def _write_special(self, signal: int, low: int, width: int, word: Word) -> None:
        s = self.design.signals[signal]
        if s.held:
            self.holds.write(signal, low, width, word)
        elif s.element:
            self._write_element(s, low, width, word)
        elif self.words[signal] != word:
            self.change(signal, word)

    def _write_element(self, s: Signal, low: int, width: int, word: Word) -> None:
        if low + width <= 0 or low >= s.width:
            return
        if width > s.element:
            for at in range(0, width, s.element):
                self._write_element(s, low + at, s.element, v.select(word, width, at, s.element))
            return
        number, at = divmod(low, s.element)
        elements = cast(list[Word], self.words[s.id])
        if number < 0 or number >= len(elements):
            return
        new = word if width == s.element else put(elements[number], s.element, at, width, word)
        if new == elements[number]:
            return
        elements[number] = new
        for _, first, size, indices in self._watchers[s.id]:
            if first < low + width and low < first + size:
                self._next.update(
                    i
                    for i in indices
                    if not (i > self._running and i in self._now) and not (i == self._running and self._deaf[i])
                )
        for index, terms in list(self._waiting[s.id].items()):
            if any(first < low + width and low < first + size for _, first, size in terms):
                self._wake(index)

    def element(self, signal: int, at: int) -> Word:
        """One element of an array; x when there is none at that offset."""
        s = self.design.signals[signal]
        if not 0 <= at < s.width:
            return cast(Word, "" if s.text else 0.0) if not s.has_digits else v.X1
        return cast(list[Word], self.words[signal])[at // s.element]

    def later(self, signal: int, low: int, width: int, word: Word) -> None:
        """A non-blocking update."""
        self._later.append((signal, low, width, word))

    def later_after(self, ticks: int, signal: int, low: int, width: int, word: Word) -> None:
        """A non-blocking assignment with a delay."""
        if ticks <= 0:
            self.later(signal, low, width, word)
        else:
            self._at(ticks, lambda: self.later(signal, low, width, word))

    def drive(self, process: int, slot: int, signal: int, low: int, width: int, word: Word) -> None:
        """The output of a gate or continuous assignment with an inertial delay (6.1.3, 7.14): a new value cancels the
        one still on its way."""
        key = process, slot
        waiting = self._pending.get(key)
        if waiting is not None:
            if waiting[1] == word:
                return
            del self._pending[key]
        if self._driven.get(key, v.X1) == word:
            return
        ticks = _delay(self.design.processes[process], word, width)

        def arrive() -> None:
            self._driven[key] = word
            self.write(signal, low, width, word)

        if ticks <= 0:
            arrive()
            return

        def fire() -> None:
            if self._pending.get(key, (0, v.X1))[0] == number:
                del self._pending[key]
                arrive()

        number = self._at(ticks, fire)
        self._pending[key] = number, word

    def trigger(self, signal: int) -> None:
        """A named event; its word only turns to and fro."""
        self.triggered[signal] = self.now
        self.change(signal, v.ZERO1 if self.words[signal] == v.ONE1 else v.ONE1)

    def _show(self, signal: int, word: Word) -> None:
        if word != self.words[signal]:
            self.change(signal, word)

    # Small things that emitted bodies ask for.

    @staticmethod
    def offset(index: Word, width: int, signed: bool, base: int, step: int, most: int | None) -> int:
        """Where a computed index points; far outside when it is unknown or past `most`, so that nothing is written."""
        if not v.is_known(index, width):
            return NOWHERE
        at = v.signed_value(index[0], width) if signed else index[0]
        offset = (at - base) * step
        if abs(offset) > NOWHERE or (most is not None and not 0 <= offset <= most):
            return NOWHERE
        return offset

    @staticmethod
    def count(word: Word, width: int, signed: bool) -> int:
        """How often `repeat` goes round: not at all for an unknown or negative word."""
        if not v.is_known(word, width):
            return 0
        return v.signed_value(word[0], width) if signed else word[0]

    @staticmethod
    def ticks(amount: Word | float, width: int, tick: int, step: int) -> int:
        """A delay in ticks of the design (9.7.1; an unknown one is none)."""
        if isinstance(amount, float):
            return round_half_away(amount * tick / step) * step
        return amount[0] * tick if v.is_known(amount, width) else 0

    def deeper(self, position: int) -> None:
        """One call further down; raises LimitReached when they nest too deep."""
        self.depth += 1
        if self.depth > self.limits.call_depth:
            raise LimitReached(
                f"calls nest deeper than {self.limits.call_depth}", position, "does it call itself without end?"
            )

    def many_rounds(self, position: int) -> None:
        """Asked now and then by a loop in which no time passes: may it go on?"""
        if self.rounds <= self.limits.loop_rounds:
            if self._expired():
                raise TimeIsUp("this loop takes too long", position, "does its condition ever become false?")
            self.most_rounds = min(self.rounds + _LOOK_AT_LOOP, self.limits.loop_rounds)
            return
        raise LimitReached(
            f"this loop ran more than {self.limits.loop_rounds} rounds without time passing",
            position,
            "does its condition ever become false?",
        )


def _waits_first(body: Stmt | None) -> bool:
    while isinstance(body, Block) and body.body:
        body = body.body[0]
    return isinstance(body, Await)


def _delay(process: Process, word: Word, width: int) -> int:
    assert process.delay is not None
    rise, fall, off = process.delay
    full = v.ones(width)
    if word == (full, full):
        return off
    if word == (0, full):
        return fall
    if width == 1 and word == v.X1:
        return min(rise, fall, off)
    return rise
