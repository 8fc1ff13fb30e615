"""Processes on digits: the form of a VHDL design in which all cases run at once, beside the one that runs step by step.

Loops are unrolled and functions written out, since every range must be known. Where the digits cannot tell what VHDL
would do (a number leaves its range, U is compared with X), a hidden digit of the process marks the lane: such cases are
run step by step instead. What cannot be lowered at all leaves the whole design to the other form."""

from __future__ import annotations

from collections.abc import Callable
from functools import reduce
from graphlib import CycleError, TopologicalSorter
from operator import or_
from typing import Any

from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import written_bits
from obento.core.ir.evaluate import evaluate
from obento.core.ir.keeps import keeps_nothing
from obento.core.ir.signal import Signal, Watch
from obento.core.limits import Limits
from obento.core.vhdl.analysis.reads import reads_edge, signals_read, static_prefix
from obento.core.vhdl.lanes.buses import Buses
from obento.core.vhdl.lanes.loops import Loops
from obento.core.vhdl.lanes.paths import by_path, digits_at
from obento.core.vhdl.lanes.statements import LaneStatements
from obento.core.vhdl.lanes.values import (
    Digits,
    NoLanes,
    bit,
    bits_of,
    both,
    either,
    exact,
    none_of,
    not_,
    same,
    word_of,
)
from obento.core.vhdl.lanes.waking import watched_bits, woken_by
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.model.types import (
    default_value,
)

_DEEPEST_CALL = 64
_MOST_PLACES = 16
"""At which the errors of one process are told apart."""
_MOST_STATEMENTS = 50_000


class Lanes(LaneStatements):
    """Lowers the processes of one design. `computed` gives the value of a call with constant arguments, `private` are
    the shared variables that one process alone uses."""

    def __init__(
        self,
        design: Design,
        computed: Callable[[t.Expr], Any],
        limits: Limits,
        buses: Buses,
        private: set[Object],
    ) -> None:
        self._buses = buses
        self._private = private
        self._design = design
        self._computed = computed
        self.limits = limits
        self._signals: dict[str, Signal] = {}
        self._variables: dict[Object, Signal] = {}
        self._begun: set[Object] = set()
        self._body = []
        self._position = 0
        self._depth = 0
        self._count = 0
        self._escape: Signal | None = None
        self._doubt: Signal | None = None
        self._errors: dict[int, Signal] = {}
        self.is_certain = True
        self._returns = []
        self._loops = self._new_loops()
        self._process: t.Process | None = None
        self.bound = {}
        self.edges = {}
        self._fixed = {}
        self.gone = False
        self._used_edge = False
        self.made: list[Process] = []

    # Signals and variables.

    def signal(self, o: Object) -> Signal:
        """The digits of a VHDL signal."""
        found = self._signals.get(o.py)
        if found is None:
            found = o.design_signal or self._design.add_signal(o.name, bits_of(o.subtype), "variable", o.pos)
            if found.width != bits_of(o.subtype):
                raise NoLanes("a signal without digits")
            one, zero = found.initial or word_of(o.value, o.subtype)
            found.initial = (one, zero) if one or zero else None
            self._signals[o.py] = found
        return found

    def place(self, o: Object) -> Digits:
        """The digits of an object."""
        if o.kind == "signal":
            return self._of(ir.Ref(bits_of(o.subtype), self.signal(o)), o.subtype)
        return self._of(ir.Ref(bits_of(o.subtype), self.variable(o)), o.subtype)

    def variable(self, o: Object) -> Signal:
        """The digits of a variable, of its own process alone."""
        found = self._variables.get(o)
        if found is None:
            is_own = o in self._private if o.shared else o.of_process is not None
            if o.kind != "variable" or not is_own:
                raise NoLanes("shared variables")
            found = self._variables[o] = self.scratch(o.name, bits_of(o.subtype))
            if o.shared:
                self._first_value(o, found, o.default)
        return found

    def scratch(self, name: str, width: int) -> Signal:
        """Digits that nobody else sees."""
        if self._design.bits + width > self.limits.signal_bits:
            raise NoLanes("too many digits")
        name = f"{self._process.name if self._process else ''}.{name}"
        return self._design.add_signal(name, width, "variable", self._position)

    def add(self, s: ir.Stmt) -> None:
        """One more statement."""
        self._count += 1
        if self._count > _MOST_STATEMENTS:
            raise NoLanes("loops that are too long to be written out")
        self._body.append(s)

    def set(self, signal: Signal, value: ir.Expr) -> None:
        """Give scratch digits a value."""
        self.add(ir.Assign(self._position, [ir.Target(signal, 0, signal.width)], value))

    def escape(self, when: ir.Expr) -> None:
        """The cases in which a condition holds are told by the timeline."""
        if isinstance(when, ir.Const) and not when.one:
            return
        if self._escape is None:
            self._escape = self.scratch("step by step", 1)
        self.set(self._escape, either(ir.Ref(1, self._escape), when))

    def error(self, when: ir.Expr) -> None:
        """The cases in which a condition holds end in an error, if what is evaluated here is evaluated at all."""
        if not self.is_certain:
            self.escape(when)
            return
        place = self._position if len(self._errors) < _MOST_PLACES else 0
        mark = self._errors.get(place)
        if mark is None:
            mark = self._errors[place] = self.scratch("in error", 1)
        self.set(mark, either(ir.Ref(1, mark), when))

    def doubt(self, when: ir.Expr) -> None:
        """As `escape`, for what may come to nothing where a process runs anew and keeps nothing from before."""
        if self._doubt is None:
            self._doubt = self.scratch("in doubt", 1)
        self.set(self._doubt, either(ir.Ref(1, self._doubt), when))

    def _marks(self, position: int, watches: list[Watch]) -> None:
        """What marks lanes: an error stays until power-up, whatever the process does later; a doubt only as long as a
        process that keeps nothing has not run anew."""
        for mark in (self._escape, self._doubt, *self._errors.values()):
            if mark is not None:
                self._body.insert(0, ir.Assign(position, [ir.Target(mark, 0, 1)], bit(False)))
        stays = [self._escape] if self._escape is not None else []
        is_process = self._process is not None and not self._process.concurrent
        if (
            self._doubt is not None
            and is_process
            and not keeps_nothing(ir.Block(position, self._body), watched_bits(watches))
        ):
            stays, self._doubt = [*stays, self._doubt], None
        if stays:
            self._ever("ever step by step", stays)
        for error in self._errors.values():
            self._design.errors.append(self._ever("ever in error", [error]))
        if self._doubt is not None:
            self._doubt.initial = 0, 1
            self._design.escapes.append(self._doubt)

    def _ever(self, name: str, marks: list[Signal]) -> Signal:
        """A mark that stays once one of some marks was raised."""
        ever = self.scratch(name, 1)
        ever.initial = 0, 1
        self.set(ever, not_(none_of([ever, *marks])))
        self._design.escapes.append(ever)
        return ever

    def _new_loops(self) -> Loops:
        return Loops(self)

    # Processes.

    def process(self, p: t.Process) -> None:
        """Lower one process.

        Raises
        ------
        NoLanes
        """
        if p.postponed:
            raise NoLanes("a postponed process")
        sensitivity, until, statements = woken_by(p)
        self._process, self._position, self._escape, self._doubt, self._errors = p, p.pos, None, None, {}
        self._delayed = False
        self._body, self.bound, self.edges = [], {}, {}
        self._used_edge = reads_edge(p.body) or until is not None
        watches: list[Watch] = []
        for x in sensitivity:
            watches.append(self._watch(x))
            if (
                self._used_edge
                and isinstance(x, t.Read)
                and bits_of(x.object.subtype) == 1
                and x.object not in self.edges
            ):
                self._remember(x.object)
        for o, paths in p.driven.items():
            self._begin(o, paths)
        for d in p.decls:
            self._process_variable(d)
        if until is None:
            self.statements(statements)
        else:
            inner = self.inner(lambda: self.statements(statements))
            self.add(ir.If(p.pos, self._resumes(until), inner, None))
        for o, before in self.edges.items():
            assert isinstance(before, ir.Ref)
            self.set(before.signal, self.place(o).digits)
        self._marks(p.pos, watches)
        body: ir.Stmt = self._body[0] if len(self._body) == 1 else ir.Block(p.pos, self._body)
        origin = "clocked" if self._used_edge else "assignment" if p.concurrent else "process"
        # How long a delay is matters only where memory can catch what passes by, and that is not run in lanes at all.
        delay = (1, 1, 1) if self._delayed else None
        self.made.append(Process("continuous", body, watches, p.pos, origin, p.path, delay, shadow=True))

    def _resumes(self, until: t.Expr) -> ir.Expr:
        """Whether a process that waits until a condition goes on: at an event of its signals, where it holds (8.1)."""
        events = [not_(same(self.place(o).digits, before)) for o, before in self.edges.items()]
        if not events:
            raise NoLanes("a wait for an event of more than single digits")
        condition = self.value(until)
        holds = same(condition.digits, bit(True)) if not condition.known else bit(bool(condition.value))
        event = events[0]
        for other in events[1:]:
            event = either(event, other)
        return both(event, holds)

    def _begin(self, o: Object, paths: list[tuple[Any, ...]]) -> None:
        """A signal begins with what its driver begins with: the default of a port, where it drives through one."""
        if o in self._buses:
            self._begin_driver(o, paths)
            return
        signal = self.signal(o)
        if o in self._begun:  # by another process that drives a part of it
            return
        word = word_of(o.value, o.subtype)
        if word != (signal.initial or (0, 0)):
            if () not in paths:
                raise NoLanes("a port with a default, driven in parts")
            signal.initial = word if word != (0, 0) else None
        self._begun.add(o)

    def _begin_driver(self, o: Object, paths: list[tuple[Any, ...]]) -> None:
        """What this process puts on a bus, and where."""
        assert self._process is not None
        driver = self.scratch(o.name, bits_of(o.subtype))
        self._buses.begin(self._process, o, driver, reduce(or_, (digits_at(o.subtype, path) for path in paths)))

    def _remember(self, o: Object) -> None:
        """What a signal was when the process ran last: the process runs at every event of it."""
        before = self.scratch(f"{o.name} before", 1)
        one, zero = word_of(o.value, o.subtype)
        before.initial = (one, zero) if one or zero else None
        self.edges[o] = ir.Ref(1, before)
        self._design.kept.append((before, self.signal(o)))

    def _watch(self, x: t.Expr) -> Watch:
        root, _ = static_prefix(x)
        if root is None or root.kind != "signal":
            raise NoLanes("a process that wakes for something else than signals")
        v = self.value(x)
        e = v.digits
        if isinstance(e, ir.Ref):
            return Watch(e.signal, "any", 0, e.width)
        low = 0
        width = e.width
        while isinstance(e, ir.Slice):
            low += e.low
            e = e.a
        assert isinstance(e, ir.Ref)
        return Watch(e.signal, "any", low, width)

    def _process_variable(self, d: t.Stmt) -> None:
        """A variable of a process begins with a value and keeps what it has."""
        if isinstance(d, t.DeclareSub):
            return
        if not isinstance(d, t.Declare):
            raise NoLanes("this declaration")
        o = d.object
        if o.kind == "constant":
            assert d.value is not None
            self.bound[o] = self.fitted(self.value(d.value), o.subtype)
            return
        self._first_value(o, self.variable(o), d.value)

    def _first_value(self, o: Object, signal: Signal, given: t.Expr | None) -> None:
        value = default_value(o.subtype)
        if given is not None:
            first = self.fitted(self.value(given), o.subtype)
            if not first.known:
                # Signals have the values that they begin with (12.6.4).
                signal.initial = evaluate(exact(first, o.subtype), lambda read: read.initial or (0, 0))
                return
            value = first.value
        one, zero = word_of(value, o.subtype)
        signal.initial = (one, zero) if one or zero else None

    # Joined ports.

    def _begin_join(self, position: int) -> None:
        self._process, self._position, self._escape, self._doubt, self._errors = None, position, None, None, {}
        self._body, self.bound, self.edges = [], {}, {}

    def join(self, p: Object, path: tuple[Any, ...], x: t.Expr, position: int) -> None:
        """A port (or part of it) follows a value."""
        self._begin_join(position)
        self._assign(by_path(p, path), self.value(x), True)
        self._finish_join(position, x)

    def join_back(
        self, root: t.Expr, p: Object, path: tuple[Any, ...], converted: t.Expr | None, position: int
    ) -> None:
        """What is connected follows an output (or part of it)."""
        self._begin_join(position)
        source = converted if converted is not None else by_path(p, path)
        self._assign(root, self.value(source), True)
        self._finish_join(position, source)

    def _finish_join(self, position: int, x: t.Expr) -> None:
        watches = [self._watch(s) for s in signals_read(x)]
        self._marks(position, watches)
        self.made.append(
            Process("continuous", ir.Block(position, self._body), watches, position, "port", "", shadow=True)
        )

    def in_order(self) -> list[Process]:
        """What was made, in the order in which it runs when several wake together: joined ports first, each after those
        that it follows.

        What is joined takes its value in the cycle in which its source does, before any process runs (IEEE 1076-1993
        clause 12.6.2)."""
        self.made += self._buses.resolved(self.signal)
        joins = [p for p in self.made if p.origin == "port"]
        makers: dict[int, set[int]] = {}
        for p in joins:
            for b in written_bits(p):
                makers.setdefault(b, set()).add(id(p))
        nobody: set[int] = set()
        sorter = TopologicalSorter(
            {id(p): set().union(*(makers.get(b, nobody) for b in watched_bits(p.watches))) - {id(p)} for p in joins}
        )
        by_id = {id(p): p for p in joins}
        try:
            ordered = [by_id[key] for key in sorter.static_order()]
        except CycleError:
            raise NoLanes("ports that follow each other in a circle") from None
        return ordered + [p for p in self.made if p.origin != "port"]
