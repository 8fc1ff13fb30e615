"""Process bodies as Python source, for the timeline: functions for those that run through, generators for those that
wait."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from obento.core import values
from obento.core.ir.design import Process
from obento.core.ir.drivers import functions_called, statements, targets, waits
from obento.core.ir.nodes import (
    Assign,
    Await,
    Block,
    Case,
    CollectionTask,
    Const,
    Delay,
    Disable,
    DisableFork,
    Fork,
    Function,
    Hold,
    If,
    Label,
    LetGo,
    Loop,
    Repeat,
    Stmt,
    SystemTask,
    Target,
    TaskCall,
    Trigger,
    WaitFork,
    WaitUntil,
)
from obento.core.ir.signal import Signal, Watch
from obento.core.sim.timeline.expressions import ExpressionEmitter

_POSTPONED = ("$strobe", "$monitor", "$fstrobe", "$fmonitor")
"""System tasks that look at their arguments when the time step ends (1364 clauses 17.1.2 and 17.1.3)."""


class Emitter(ExpressionEmitter):
    """Writes one Python function for each process body and each function or task called from one.

    Afterwards `calls` holds the system tasks, `watches` the lists of what is waited for, by the numbers the source
    uses."""

    def __init__(self) -> None:
        super().__init__()
        self.watches: list[list[Watch]] = []
        self._labels: dict[int, int] = {}
        self._threaded = False
        self._delayed: int | None = None
        self._deferring: int | None = None
        self._slot = 0
        self._automatic: list[str] = []
        self._waits: dict[int, bool] = {}
        self._begins: list[tuple[int, int]] = []

    def process(self, name: str, index: int, process: Process) -> bool:
        """Write a process; whether it is a generator."""
        threaded = process.kind == "forever" or waits(process.body)
        self._delayed = index if process.delay is not None and process.kind == "continuous" else None
        self._slot = 0
        self._begins.append((len(self.lines), process.position))
        self._begin(name, threaded, counts_rounds=not threaded and _loops(process.body))
        says_later = any(isinstance(s, SystemTask) and s.deferred for s in statements(process.body))
        self._deferring = index if says_later else None
        self._goes_on()
        self._own_automatics(process.body)
        if process.kind == "forever":
            self._put("while True:")
            self._indent += 1
            self._round(process.position)
        self._statement(process.body)
        self._finish()
        self._delayed = self._deferring = None
        while self._queue:
            function, function_name = self._queue.pop()
            self._task(function_name, function)
        return threaded

    def source(self) -> str:
        """The text written so far."""
        return "\n".join(self.lines) + "\n"

    def position_of(self, line: int) -> int:
        """Where the process stands of which a line of the source (counted from 1) was written."""
        return max((begin for begin in self._begins if begin[0] < line), default=(0, 0))[1]

    # Definitions.

    def _begin(self, name: str, threaded: bool, parameters: str = "", counts_rounds: bool = False) -> None:
        self._indent = 0
        self._threaded = threaded
        self._automatic = []
        self._put(f"def {name}(K{parameters}):")
        self._indent = 1
        self._put("S = K.words")
        if counts_rounds:
            self._put("K.rounds = K.depth = 0")

    def _finish(self) -> None:
        self._indent = 1
        self._put("return")
        if self._threaded:
            self._put("yield")  # makes a generator of it, whatever stands before

    def _task(self, name: str, f: Function) -> None:
        parameters = "".join(f", a{p.id}" for p in f.params) if f.automatic else ""
        self._begin(name, self._task_waits(f), parameters)
        if f.automatic:
            given = {p.id for p in f.params}
            for s in f.storage():
                self._automatic.append(f"a{s.id}")
                if s.id not in given:
                    self._put(f"a{s.id} = {_blank(s) or (0, values.ones(s.width) * s.two_state)}")
        self._own_automatics(f.body)
        self._put(f"K.deeper({f.position})")
        self._labelled(f.label, f.body)
        self._put("K.depth -= 1")
        if f.automatic:
            results = [f.result] if f.result is not None else f.outputs
            self._put(
                "return " + ", ".join(f"a{s.id}" for s in results) + ("," if f.result is None and results else "")
            )
        self._finish()

    def _own_automatics(self, body: Stmt | None) -> None:
        """Automatic variables of blocks in what is not automatic itself."""
        for s in {t.signal.id: t.signal for t in targets(body) if t.signal.automatic}.values():
            name = f"a{s.id}"
            if name not in self._automatic:
                self._automatic.append(name)
                self._put(f"{name} = {_blank(s) or (0, values.ones(s.width) * s.two_state)}")

    def _task_waits(self, f: Function) -> bool:
        known = self._waits.get(id(f))
        if known is None:
            known = self._waits[id(f)] = f.result is None and waits(f.body)
        return known

    # Statements.

    def _statement(self, s: Stmt | None) -> None:
        if s is None:
            self._put("pass")
            return
        rule = _RULES.get(type(s))
        if rule is None:
            raise AssertionError(f"no rule for {type(s).__name__}")
        rule(self, s)

    def _block(self, s: Block) -> None:
        if s.label is not None and s.label.used:
            self._labelled(s.label, Block(s.position, s.body))
            return
        for inner in s.body:
            self._statement(inner)
        if not s.body:
            self._put("pass")

    def _label_number(self, label: Label) -> int:
        return self._labels.setdefault(id(label), len(self._labels))

    def _labelled(self, label: Label | None, body: Stmt | None) -> None:
        """A body that `disable` may end."""
        if label is None or not label.used:
            self._statement(body)
            return
        number = self._label_number(label)
        caught = self._name("d")
        thread = self._temp(f"K.enter({number})") if self._threaded else ""
        self._put("try:")
        self._indent += 1
        self._statement(body)
        self._indent -= 1
        self._put(f"except Disabled as {caught}:")
        self._put(f"    if {caught}.label != {number}: raise")
        if self._threaded:
            self._put("finally:")
            self._put(f"    K.leave({number}, {thread})")

    def _disable(self, s: Disable) -> None:
        self._put(f"K.disable({self._label_number(s.label)})")

    def _round(self, position: int) -> None:
        self._put("K.rounds += 1")
        self._put(f"if K.rounds > K.most_rounds: K.many_rounds({position})")

    def _loop(self, s: Loop) -> None:
        self._put("while True:")
        self._indent += 1
        if not (isinstance(s.cond, Const) and s.cond.one):
            self._put(f"if {self._truth(s.cond)} != ONE1: break")
        self._round(s.position)
        self._statement(s.body)
        self._indent -= 1

    def _repeat(self, s: Repeat) -> None:
        count = self._temp(f"K.count({self._expr(s.count)}, {s.count.width}, {s.signed})")
        self._put(f"while {count} > 0:")
        self._indent += 1
        self._put(f"{count} -= 1")
        self._round(s.position)
        self._statement(s.body)
        self._indent -= 1

    # Branches are written flat, with a flag for "an earlier one was taken": a long chain of `else if` or of case arms
    # must not indent deeper than Python's compiler allows.

    def _if(self, s: If) -> None:
        if not isinstance(s.other, If):
            self._put(f"if {self._truth(s.cond)} == ONE1:")
            self._indented(s.then)
            if s.other is not None:
                self._put("else:")
                self._indented(s.other)
            return
        done = self._temp("False")
        link: Stmt | None = s
        while isinstance(link, If):
            self._put(f"if not {done}:")
            self._indent += 1
            self._put(f"if {self._truth(link.cond)} == ONE1:")
            self._branch(done, link.then)
            self._indent -= 1
            link = link.other
        if link is not None:
            self._put(f"if not {done}:")
            self._branch(done, link)

    def _indented(self, body: Stmt | None) -> None:
        self._indent += 1
        self._statement(body)
        self._indent -= 1

    def _branch(self, done: str, body: Stmt | None) -> None:
        self._indent += 1
        self._put(f"{done} = True")
        self._statement(body)
        self._indent -= 1

    def _case(self, s: Case) -> None:
        subject = self._temp(self._expr(s.subject))
        done = self._temp("False")
        for arm in s.arms:
            self._put(f"if not {done}:")
            self._indent += 1
            tests = [f"v_{s.match}({subject}, {self._expr(label)}, {s.subject.width}) == ONE1" for label in arm.labels]
            self._put(f"if {' or '.join(tests)}:")
            self._branch(done, arm.body)
            self._indent -= 1
        if s.default is not None:
            self._put(f"if not {done}:")
            self._branch(done, s.default)

    def _assign(self, s: Assign) -> None:
        value = self._expr(s.value)
        if self._delayed is not None:
            self._drive(s, value)
        elif s.timing is None:
            self._spread(s.targets, value, s.blocking)
        elif s.blocking:
            self._statement(s.timing)
            self._spread(s.targets, value, True)
        else:
            self._later(s, value)

    def _drive(self, s: Assign, value: str) -> None:
        """The value of a gate or continuous assignment with a delay."""
        low = s.value.width
        for t in s.targets:
            low -= t.width
            part = value if len(s.targets) == 1 else self._temp(f"select({value}, 0, {low}, {t.width})")
            self._put(f"K.drive({self._delayed}, {self._slot}, {t.signal.id}, {self._place(t)}, {t.width}, {part})")
            self._slot += 1

    def _later(self, s: Assign, value: str) -> None:
        """A non-blocking assignment that takes effect after a delay or an event; the process itself goes on."""
        places = [(t, self._temp(self._place(t))) for t in s.targets]
        parts: list[str] = []
        low = s.value.width
        for t in s.targets:
            low -= t.width
            parts.append(value if len(s.targets) == 1 else self._temp(f"select({value}, 0, {low}, {t.width})"))
        if isinstance(s.timing, Delay):
            ticks = self._ticks(s.timing)
            for (t, place), part in zip(places, parts, strict=True):
                self._put(f"K.later_after({ticks}, {t.signal.id}, {place}, {t.width}, {part})")
            return
        name = self._nested(lambda: self._late_writes(s, places, parts))
        self._put(f"K.fork([{name}(K)], True)")

    def _late_writes(self, s: Assign, places: list[tuple[object, str]] | list, parts: list[str]) -> None:  # type: ignore[type-arg]
        self._statement(s.timing)
        for (t, place), part in zip(places, parts, strict=True):
            self._put(f"K.later({t.signal.id}, {place}, {t.width}, {part})")

    def _nested(self, body: Callable[[], None], own: Iterable[Signal] = ()) -> str:
        """A generator of its own inside the one being written; it shares its automatic storage, but for what is its
        own."""
        name = self._name("g")
        bound = [f"a{s.id}" for s in own if s.automatic]
        self._put(f"def {name}(K{''.join(f', {a}={a}' for a in bound)}):")
        self._indent += 1
        shared = [a for a in self._automatic if a not in bound]
        if shared:
            self._put(f"nonlocal {', '.join(shared)}")
        body()
        self._put("return")
        self._put("yield")
        self._indent -= 1
        return name

    # Waiting.

    def _ticks(self, s: Delay) -> str:
        amount = s.amount
        return self._temp(f"K.ticks({self._expr(amount)}, {amount.width}, {s.tick}, {s.step})")

    def _goes_on(self) -> None:
        """A process runs again: what its deferred assertions have said does not count."""
        if self._deferring is not None:
            self._put(f"K.bench.withdraw({self._deferring})")

    def _delay(self, s: Delay) -> None:
        self._put(f"K.sleep({self._ticks(s)})")
        self._put("yield")

    def _listen(self, watches: list[Watch]) -> None:
        self.watches.append(watches)
        self._put(f"K.listen({len(self.watches) - 1})")
        self._put("yield")
        self._goes_on()

    def _await(self, s: Await) -> None:
        if s.count is None:
            self._listen(s.watches)
            return
        count = self._temp(f"K.count({self._expr(s.count)}, {s.count.width}, True)")
        self._put(f"while {count} > 0:")
        self._indent += 1
        self._put(f"{count} -= 1")
        self._listen(s.watches)
        self._indent -= 1

    def _wait_until(self, s: WaitUntil) -> None:
        self._put("while True:")
        self._indent += 1
        self._put(f"if {self._truth(s.cond)} == ONE1: break")
        self._listen(s.watches)
        self._indent -= 1

    def _wait_fork(self, s: WaitFork) -> None:
        del s
        self._put("while K.forked(): yield")

    def _disable_fork(self, s: DisableFork) -> None:
        del s
        self._put("K.end_forked()" if self._threaded else "pass")

    def _fork(self, s: Fork) -> None:
        names = [self._nested(lambda b=branch: self._statement(b), s.own) for branch in s.branches]  # type: ignore[misc]
        children = self._temp(f"K.fork([{', '.join(f'{name}(K)' for name in names)}])")
        if s.until != "none" and names:
            self._put(f"while K.unjoined({children}, {s.until == 'any'}): yield")

    # Calls.

    def _task_call(self, s: TaskCall) -> None:
        f = s.task
        name = self._function(f)
        rest = self._given(f, s.args)
        call = f"yield from {name}(K{rest})" if self._task_waits(f) else f"{name}(K{rest})"
        if f.automatic:
            results = self._temp(f"({call})")
            values = [self._temp(f"{results}[{i}]") for i in range(len(s.results))]
        else:
            self._put(call)
            values = [self._temp(f"S[{output.id}]") for output in f.outputs]
        for value, output, signed, places in zip(values, f.outputs, f.outputs_signed, s.results, strict=True):
            self._spread(places, self._fitted(value, output, signed, places), True)

    def _fitted(self, value: str, output: Signal, signed: bool, targets: list[Target]) -> str:
        """A task's output as wide as what it is written to."""
        width = sum(t.width for t in targets)
        if output.real != targets[0].signal.real:
            return self._temp(
                f"word(round_half_away({value}), {width})"
                if output.real
                else f"to_real({value}, {output.width}, {signed})"
            )
        if output.width < width:
            return self._temp(f"extend({value}, {output.width}, {width}, {signed})")
        return self._temp(f"select({value}, {output.width}, 0, {width})") if output.width > width else value

    def _collection_task(self, s: CollectionTask) -> None:
        self._expr(s.call)

    def _system_task(self, s: SystemTask) -> None:
        call = s.call
        number = self._number(call)
        if call.name.rstrip("bhod").startswith(_POSTPONED) and call.name not in ("$monitoron", "$monitoroff"):
            name = self._name("m")
            self._put(f"def {name}():")
            self._indent += 1
            self._put(f"return {self._arguments(call.args)}")
            self._indent -= 1
            self._put(f"K.bench.postpone({number}, {name})")
            return
        arguments = self._arguments(call.args)
        if s.deferred:
            self._put(f"K.bench.defer({-1 if self._deferring is None else self._deferring}, {number}, {arguments})")
        elif any(a.targets for a in call.args):
            result = self._temp(f"K.bench.value({number}, {arguments})[1]")
            self._write_back(call.args, result)
        else:
            self._put(f"K.bench.task({number}, {arguments})")

    # Holding.

    def _trigger(self, s: Trigger) -> None:
        self._put(f"K.trigger({s.signal.id})")

    def _hold(self, s: Hold) -> None:
        follower = s.follower.id
        value = self._expr(s.value)
        self._put(f"if S[{follower}] != {value}: K.change({follower}, {value})")
        low = sum(t.width for t in s.targets)
        for t in s.targets:
            low -= t.width
            self._put(f"K.holds.hold({s.kind!r}, {t.signal.id}, {t.low}, {t.width}, {follower}, {low}, {value})")

    def _let_go(self, s: LetGo) -> None:
        for t in s.targets:
            self._put(f"K.holds.let_go({s.kind!r}, {t.signal.id}, {t.low}, {t.width})")


def _blank(signal: Signal) -> str:
    """What a variable without digits begins with, as source text."""
    if signal.collection is not None:
        return f"K.empty({signal.id})"
    return "0.0" if signal.real else "''" if signal.text else ""


def _loops(body: Stmt) -> bool:
    """Whether a body has loops or calls of its own: rounds and depth are then counted anew each time it runs."""
    return any(isinstance(s, Loop | Repeat) for s in statements(body)) or bool(functions_called(body))


_RULES: dict[type, Callable[..., None]] = {
    Block: Emitter._block,
    Assign: Emitter._assign,
    If: Emitter._if,
    Case: Emitter._case,
    Loop: Emitter._loop,
    Repeat: Emitter._repeat,
    Delay: Emitter._delay,
    Await: Emitter._await,
    WaitUntil: Emitter._wait_until,
    WaitFork: Emitter._wait_fork,
    DisableFork: Emitter._disable_fork,
    Trigger: Emitter._trigger,
    Fork: Emitter._fork,
    Disable: Emitter._disable,
    TaskCall: Emitter._task_call,
    SystemTask: Emitter._system_task,
    CollectionTask: Emitter._collection_task,
    Hold: Emitter._hold,
    LetGo: Emitter._let_go,
}
