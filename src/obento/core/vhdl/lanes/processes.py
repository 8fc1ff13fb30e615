"""Processes on digits: the form of a VHDL design in which all cases run at once, beside the one that runs step by step.

Loops are unrolled and functions written out, since every range must be known. Where the digits cannot tell what VHDL
would do (a number leaves its range, U is compared with X), a hidden digit of the process marks the lane: such cases are
run step by step instead. What cannot be lowered at all leaves the whole design to the other form."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
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
from obento.core.vhdl.analysis.statements import reads_edge, signals_read, static_prefix
from obento.core.vhdl.code.statements import subtype_of, walk
from obento.core.vhdl.lanes.buses import Buses
from obento.core.vhdl.lanes.expressions import LaneExpressions
from obento.core.vhdl.lanes.loops import Loops
from obento.core.vhdl.lanes.paths import by_path, digits_at
from obento.core.vhdl.lanes.values import (
    Digits,
    NoLanes,
    bit,
    bits_of,
    both,
    either,
    exact,
    is_known,
    none_of,
    not_,
    number_width,
    same,
    widened,
    word_of,
)
from obento.core.vhdl.lanes.values import number as number_of
from obento.core.vhdl.lanes.varying import Varying, varying
from obento.core.vhdl.lanes.waking import watched_bits, woken_by
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.nine_values import DASH
from obento.core.vhdl.model.scope import Object, Subprogram
from obento.core.vhdl.model.types import (
    ArrayType,
    IntType,
    RecordType,
    Subtype,
    default_value,
    is_scalar,
    scalar_bounds,
)
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.packages.standard import INTEGER, int_range

_DEEPEST_CALL = 64
_MOST_PLACES = 16
"""At which the errors of one process are told apart."""
_MOST_STATEMENTS = 50_000


@dataclass(slots=True)
class _Leaving:
    """How a subprogram is left: the flag that it is, and where its value goes, which a function has."""

    done: Signal
    has_value: bool
    result: Signal | None = None
    subtype: Subtype | None = None

    def of(self, result: Signal, subtype: Subtype) -> None:
        """The value goes there."""
        self.result, self.subtype = result, subtype


class Lanes(LaneExpressions):
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
        self._body: list[ir.Stmt] = []
        self._position = 0
        self._depth = 0
        self._count = 0
        self._escape: Signal | None = None
        self._doubt: Signal | None = None
        self._errors: dict[int, Signal] = {}
        self.is_certain = True
        self._returns: list[_Leaving] = []
        self._loops = Loops(self)
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
        return self._of(ir.Ref(bits_of(o.subtype), self._variable(o)), o.subtype)

    def _variable(self, o: Object) -> Signal:
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
        self._first_value(o, self._variable(o), d.value)

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

    # Statements.

    def statements(self, body: Sequence[t.Stmt]) -> None:
        """Lower in order; what follows a possible jump waits for its flags."""
        for i, s in enumerate(body):
            self._position = s.pos
            self._statement(s)
            if self.gone:  # nothing behind it is come to, whatever the inputs
                return
            flags = self.flags_of(s)
            if flags and i + 1 < len(body):
                rest, is_left = self._branch(lambda i=i: self.statements(body[i + 1 :]))  # type: ignore[misc]
                self.add(ir.If(s.pos, none_of(flags), rest, None))
                # It has returned already, or does so behind this; other flags leave loops only.
                self.gone = is_left and all(self._returns and f is self._returns[-1].done for f in flags)
                return

    def inner(self, work: Any) -> ir.Block:
        """What some work adds, as a block of its own."""
        outer, self._body = self._body, []
        try:
            work()
            return ir.Block(self._position, self._body)
        finally:
            self._body, self.gone = outer, False

    def flags_of(self, s: t.Stmt) -> list[Signal]:
        """Flags that a statement may raise on its way out."""
        found: list[Signal] = []
        for inner in walk([s]):
            if isinstance(inner, t.Return) and self._returns:
                found.append(self._returns[-1].done)
            elif isinstance(inner, t.Jump):
                flag = self._loops.flag_of(inner)
                if flag is not None:
                    found.append(flag)
        return list({f.id: f for f in found}.values())

    def _statement(self, s: t.Stmt) -> None:
        numbers = varying(s, self._looked_at)
        if numbers:
            self._for_each(s, numbers)
        else:
            self._plain(s)

    def _looked_at(self, x: t.Expr) -> Digits:
        """The digits of an expression, without a mark of what may go wrong in it."""
        found: list[Digits] = []
        self.inner(lambda: found.append(self.value(x)))
        return found[0]

    def _for_each(self, s: t.Stmt, numbers: list[Varying]) -> None:
        """Write a statement out for each value of the numbers that its slices depend on."""
        if not numbers:
            self._plain(s)
            return
        number, rest = numbers[0], numbers[1:]
        v = self.value(number.x)
        width = number_width(min(number.values.start, v.bounds[0], -1), max(number.values.stop, v.bounds[1]))
        key = number.x.object if isinstance(number.x, t.Read) else None
        arms: list[ir.CaseArm] = []
        reason: NoLanes | None = None
        for n in number.values:
            known = Digits(v.sub, n, True)
            outer, before = self.bound, (self._depth, len(self._returns), self._loops, self.is_certain)
            self.bound = {**outer, key: known} if key is not None else outer
            self._fixed[id(number.x)] = known
            try:
                block = self.inner(lambda: self._for_each(s, rest))
                arms.append(ir.CaseArm([number_of(n, width)], block, s.pos))
            except NoLanes as why:  # with this number alone: those lanes are run step by step
                reason = why
                self._depth, count, self._loops, self.is_certain = before
                del self._returns[count:]
            finally:
                self.bound = outer
                del self._fixed[id(number.x)]
        if not arms and reason is not None:
            raise reason
        default = self.inner(lambda: self.escape(bit(True)))
        self.add(ir.Case(s.pos, "ceq", widened(v, width), arms, default))

    def _plain(self, s: t.Stmt) -> None:
        match s:
            case t.SetSignal():
                self._set_signal(s)
            case t.SetVariable():
                self._set_variable(s)
            case t.If():
                self._if(s.arms, s.pos)
            case t.Case():
                self._case(s)
            case t.Loop():
                self._loops.loop(s)
            case t.Jump():
                self._loops.jump(s)
            case t.Return():
                self._return(s)
            case t.Assert():
                self._assert(s)
            case t.Null():
                pass
            case t.Declare():
                self._declare(s)
            case t.DeclareSub():
                pass
            case t.CallProcedure():
                self._call_procedure(s)
            case _:
                raise NoLanes("a process that waits")

    def _declare(self, s: t.Declare) -> None:
        o = s.object
        subtype = o.subtype
        value = self.value(s.value) if s.value is not None else None
        if isinstance(subtype.type, ArrayType):
            if subtype.ranges is None:
                if value is None:
                    raise NoLanes("an array whose size is only known in the run")
                subtype = value.sub
            else:
                ranges = [int_range(INTEGER, *self.range(r)) for r in subtype.ranges]
                subtype = Subtype(subtype.type, ranges, None, subtype.element)
        elif isinstance(subtype.type, IntType) and scalar_bounds(subtype) is None:
            assert subtype.ranges is not None
            left, right, down = self.range(subtype.ranges[0])
            subtype = Subtype(subtype.type, [int_range(INTEGER, left, right, down)])
        if o.kind == "constant" and value is not None:
            self.bound[o] = self.fitted(value, subtype)
            return
        signal = self.scratch(o.name, bits_of(subtype))
        self.bound[o] = self._of(ir.Ref(signal.width, signal), subtype)
        fitted = self.fitted(value, subtype) if value is not None else self.constant(default_value(subtype), subtype)
        self.set(signal, exact(fitted, subtype))

    def _set_variable(self, s: t.SetVariable) -> None:
        if isinstance(s.target, t.ArrayAgg | t.RecordAgg):
            self._spread(s.target, self.value(s.value), True)
            return
        self._assign(s.target, self.value(s.value), True)

    def _spread(self, target: t.ArrayAgg | t.RecordAgg, v: Digits, blocking: bool) -> None:
        """An aggregate of names takes a value apart; the value is held first, since its parts may be among the
        targets."""
        e = v.digits
        held = self.scratch("taken apart", e.width)
        self.set(held, e)
        parts = target.values if isinstance(target, t.RecordAgg) else [x for _, x, _ in target.items]
        if isinstance(target, t.ArrayAgg) and any(place is not None for place, _, _ in target.items):
            raise NoLanes("targets by name")
        high = e.width
        for x in parts:
            size = bits_of(self._known_subtype(x))
            high -= size
            if high < 0:
                raise NoLanes("lengths that do not agree")
            part = self._of(ir.Slice(size, ir.Ref(held.width, held), high), self._known_subtype(x))
            self._assign(x, part, blocking)

    def _known_subtype(self, x: t.Expr) -> Subtype:
        s = subtype_of(x)
        if isinstance(s.type, ArrayType) and (s.ranges is None or s.ranges[0].known() is None):
            return self.value(x).sub
        return s

    def _assign(self, target: t.Expr, v: Digits, blocking: bool) -> None:
        signal, low, offsets, subtype = self._target(target)
        fitted = self.fitted(v, subtype)
        width = bits_of(subtype)
        if not width:  # a slice without elements
            return
        self.add(ir.Assign(self._position, [ir.Target(signal, low, width, offsets)], exact(fitted, subtype), blocking))

    def _target(self, x: t.Expr) -> tuple[Signal, int, list[ir.Offset], Subtype]:
        """Where a name is: signal, first digit, computed offsets, and its subtype."""
        match x:
            case t.Read():
                found = self.bound.get(x.object)
                if found is not None:
                    if not isinstance(found.e, ir.Ref):
                        raise NoLanes("an assignment to a value")
                    return found.e.signal, 0, [], found.sub
                if x.object in self._buses:
                    return self._buses.driver(self._process, x.object), 0, [], x.object.subtype
                if x.object.kind == "signal":
                    return self.signal(x.object), 0, [], x.object.subtype
                return self._variable(x.object), 0, [], x.object.subtype
            case t.Field():
                signal, low, offsets, subtype = self._target(x.prefix)
                assert isinstance(subtype.type, RecordType)
                low += sum(bits_of(f) for _, f in subtype.fields[x.number + 1 :])
                return signal, low, offsets, subtype.fields[x.number][1]
            case t.Slice():
                signal, low, offsets, subtype = self._target(x.prefix)
                own = self._bounds(Digits(subtype, e=ir.Ref(1, signal)))
                left, right, down = self.range(x.range)
                inside = min(own[:2]) <= min(left, right) and max(left, right) <= max(own[:2])
                last = left - right if down else right - left
                if last >= 0 and (not inside or (down != own[2] and last > 0)):
                    self.error(bit(True))
                    low += signal.width  # where nothing is written
                else:
                    low += abs(own[1] - right) * bits_of(subtype.element_subtype)
                return (
                    signal,
                    low,
                    offsets,
                    Subtype(subtype.type, [int_range(INTEGER, left, right, down)], None, subtype.element),
                )
            case t.Index():
                return self._indexed_target(x)
            case t.AliasOf():
                signal, low, offsets, _ = self._target(x.prefix)
                return signal, low, offsets, self.alias_subtype(x)
        raise NoLanes("an assignment to something that is no name")

    def _indexed_target(self, x: t.Index) -> tuple[Signal, int, list[ir.Offset], Subtype]:
        signal, low, offsets, subtype = self._target(x.prefix)
        for dimension, i in enumerate(x.indices):
            left, right, down = self._bounds(Digits(subtype, e=ir.Ref(1, signal)), dimension)
            width = self.row_width(subtype, dimension)
            index = self.value(i)
            first, last = min(left, right), max(left, right)
            if index.known:
                if not first <= index.value <= last:
                    self.error(bit(True))
                    low += signal.width  # where nothing is written
                    continue
                low += abs(right - index.value) * width
                continue
            self.inside(index, first, last)
            size = (last - first + 1) * width
            step = width if down else -width
            offsets = [*offsets, ir.Offset(index.digits, index.bounds[0] < 0, right, step, width, size)]
        return signal, low, offsets, subtype.element_subtype

    def _set_signal(self, s: t.SetSignal) -> None:
        value, after = s.waves[0]
        if (
            len(s.waves) != 1
            or value is None
            or not (after is None or (isinstance(after, t.Const) and after.value >= 0))
        ):
            raise NoLanes("delays")
        self._delayed |= after is not None
        v = self.value(value)
        if isinstance(s.target, t.ArrayAgg | t.RecordAgg):
            self._spread(s.target, v, False)
        else:
            self._assign(s.target, v, False)

    def _if(self, arms: list[tuple[t.Expr | None, list[t.Stmt]]], pos: int) -> None:
        condition, body = arms[0]
        if condition is None:
            self.statements(body)
            return
        c = self.value(condition)
        if c.known:
            if c.value:
                self.statements(body)
            elif len(arms) > 1:
                following = arms[1][0]
                self._if(arms[1:], following.pos if following is not None else pos)
            return
        then, is_left = self._branch(lambda: self.statements(body))
        other: ir.Block | None = None
        is_other_left = False
        if len(arms) > 1:
            following = arms[1][0]
            place = following.pos if following is not None else pos
            other, is_other_left = self._branch(lambda: self._if(arms[1:], place))
        self.add(ir.If(pos, c.digits, then, other))
        self.gone = is_left and is_other_left

    def _branch(self, work: Callable[[], None]) -> tuple[ir.Block, bool]:
        """What some work adds, and whether it leaves the subprogram in any case."""
        left: list[bool] = []

        def noted() -> None:
            work()
            left.append(self.gone)

        return self.inner(noted), left[0]

    def _case(self, s: t.Case) -> None:
        selector = self.value(s.selector)
        e = selector.digits
        if s.matching:
            # `?=` of X matches nothing and of `-` everything (1076-2008 clause 9.2.3); digits are one in both.
            self.doubt(not_(is_known(e)))
            e = ir.Unary(e.width, "not", ir.Unary(e.width, "not", e))  # z is no don't-care here
        arms: list[ir.CaseArm] = []
        default: ir.Stmt | None = None
        left: list[bool] = []
        for number, (choices, body) in enumerate(s.arms):
            inner, is_left = self._branch(lambda body=body: self.statements(body))  # type: ignore[misc]
            left.append(is_left)
            if choices is None:
                default = inner
                continue
            labels: list[ir.Expr] = []
            for choice in choices:
                values = range(choice[0], choice[1] + 1) if isinstance(choice, tuple) else [choice]
                if len(values) > 4096:
                    raise NoLanes("a very long range of choices")
                for value in values:
                    labels += self._matched(value, selector) if s.matching else self._label(value, selector, e)
            place = s.places[number] if s.places else s.pos
            arms.append(ir.CaseArm(labels, inner, place))
        self.add(ir.Case(s.pos, "casez" if s.matching else "ceq", e, arms, default))
        self.gone = all(left)

    def _matched(self, value: Any, selector: Digits) -> list[ir.Expr]:
        """A choice of a matching case: `-` matches either digit, another unknown none."""
        sub = Subtype(selector.sub.type, selector.sub.ranges, None, selector.sub.element)
        if isinstance(value, Arr):
            sub = self.constant(value, sub).sub
        one, zero = word_of(value, sub)
        for i, digit in enumerate(reversed(value.v if isinstance(value, Arr) else [value])):
            if (one ^ zero) >> i & 1:
                continue
            if digit != DASH:
                return []
            one, zero = one | 1 << i, zero | 1 << i
        return [ir.Const(selector.digits.width, one, zero)]

    def _label(self, value: Any, selector: Digits, e: ir.Expr) -> list[ir.Expr]:
        sub = Subtype(selector.sub.type, selector.sub.ranges, None, selector.sub.element)
        if isinstance(selector.sub.type, IntType):
            full = (1 << e.width) - 1
            low, high = selector.bounds
            return [ir.Const(e.width, value & full, ~value & full)] if low <= value <= high else []
        if isinstance(value, Arr):
            sub = self.constant(value, sub).sub
        one, zero = word_of(value, sub)
        label = ir.Const(e.width, one, zero)
        if (one ^ zero).bit_count() != e.width:
            self.doubt(same(e, label))  # it may be another unknown value that is meant
        return [label]

    def _assert(self, s: t.Assert) -> None:
        """Only an assertion that ends the run matters here."""
        severity = s.severity
        if severity is None or (isinstance(severity, t.Const) and severity.value < 3):
            return
        if s.condition is None:
            self.escape(bit(True))
            return
        self.escape(not_(same(self.value(s.condition).digits, bit(True))))

    # Subprograms, written out where they are called.

    def _enter(self, f: Subprogram) -> None:
        self._depth += 1
        if self._depth > _DEEPEST_CALL:
            raise NoLanes("a subprogram that calls itself")
        if f.body is None or f.waits:
            raise NoLanes("a subprogram that waits")

    def call_user(self, f: Subprogram, args: list[Digits]) -> Digits:
        """A call of a function of the user, put in place."""
        if all(a.known for a in args) and f.pure:
            x = t.Call(f.result.type, f.pos, f, [t.Const(a.sub.type, f.pos, a.value, sub=a.sub) for a in args])  # type: ignore[union-attr]
            return self.constant(self._computed(x), f.result)  # type: ignore[arg-type]
        self._enter(f)
        assert f.result is not None and f.body is not None
        result_subtype = self._result_subtype(f, args)
        done = self.scratch("returned", 1)
        saved = {o: self.bound.get(o) for o in (*f.params, *(d.object for d in f.decls if isinstance(d, t.Declare)))}
        position = self._position
        for p, a in zip(f.params, args, strict=True):
            self.bound[p] = a
        single = f.body[0] if len(f.body) == 1 and not f.decls else None
        if isinstance(single, t.Return) and single.value is not None:
            found = self.fitted(self.value(single.value), f.result)
        else:
            leaving = _Leaving(done, True)
            if result_subtype is not None:
                leaving.of(self.scratch("result", bits_of(result_subtype)), result_subtype)
            self.set(done, bit(False))
            self._returns.append(leaving)
            loops, self._loops = self._loops, Loops(self)
            for d in f.decls:
                self._statement(d)
            self.statements(f.body)
            self._loops, self.gone = loops, False
            self._returns.pop()
            self.escape(not_(same(ir.Ref(1, done), bit(True))))
            if leaving.result is None or leaving.subtype is None:
                raise NoLanes("a result whose size is only known in the run")
            found = self._of(ir.Ref(leaving.result.width, leaving.result), leaving.subtype)
        for o, before in saved.items():
            if before is None:
                self.bound.pop(o, None)
            else:
                self.bound[o] = before
        self._position = position
        self._depth -= 1
        return found

    def _result_subtype(self, f: Subprogram, args: list[Digits]) -> Subtype | None:
        """The subtype of a result; for arrays that of a returned local, whose range the arguments settle."""
        assert f.result is not None and f.body is not None
        if not isinstance(f.result.type, ArrayType) or f.result.ranges is not None:
            return f.result
        for p, a in zip(f.params, args, strict=True):
            self.bound[p] = a
        for s in walk(f.body):
            if isinstance(s, t.Return) and isinstance(s.value, t.Read):
                o = s.value.object
                if o.is_param and o in self.bound:
                    return self.bound[o].sub
                if o.subtype.ranges is not None:
                    ranges = [int_range(INTEGER, *self.range(r)) for r in o.subtype.ranges]
                    return Subtype(o.subtype.type, ranges, None, o.subtype.element)
        return None

    def _return(self, s: t.Return) -> None:
        if not self._returns:
            raise NoLanes("a return from nowhere")
        leaving = self._returns[-1]
        if s.value is not None and leaving.has_value:
            v = self.value(s.value)
            if leaving.result is None or leaving.subtype is None:  # it is as long as what is given back first
                leaving.of(self.scratch("result", v.digits.width), v.sub)
            assert leaving.result is not None and leaving.subtype is not None
            if v.digits.width != leaving.result.width and isinstance(v.sub.type, ArrayType):
                raise NoLanes("a result whose size is only known in the run")
            self.set(leaving.result, exact(self.fitted(v, leaving.subtype), leaving.subtype))
        self.set(leaving.done, bit(True))
        self.gone = True

    def _call_procedure(self, s: t.CallProcedure) -> None:
        f = s.procedure
        if f.native is not None or f.foreign or s.receiver is not None:
            raise NoLanes(f"`{f.name}`")
        self._enter(f)
        assert f.body is not None
        saved = dict(self.bound)
        outs: list[tuple[t.Expr, Digits]] = []
        new: dict[Object, Digits] = {}
        for p, a in zip(f.params, s.args, strict=True):
            if p.kind == "signal":
                root, path = static_prefix(a)
                if root is None or path or not isinstance(a, t.Read):
                    raise NoLanes("part of a signal as a parameter")
                new[p] = self.place(root) if root not in self.bound else self.bound[root]
            elif p.kind == "variable":
                held = self.value(a)
                subtype = p.subtype if p.subtype.static() and not isinstance(p.subtype.type, ArrayType) else held.sub
                own = self.scratch(p.name, bits_of(subtype))
                start = held if p.mode == "inout" else self.constant(default_value(subtype), subtype)
                self.set(own, exact(self.fitted(start, subtype), subtype))
                new[p] = self._of(ir.Ref(own.width, own), subtype)
                if p.mode in ("out", "inout"):
                    outs.append((a, new[p]))
            else:
                v = self.value(a)
                new[p] = self.fitted(v, p.subtype) if is_scalar(p.subtype.type) else v
        self.bound.update(new)
        done = self.scratch("returned", 1)
        self.set(done, bit(False))
        self._returns.append(_Leaving(done, False))
        loops, self._loops = self._loops, Loops(self)
        for d in f.decls:
            self._statement(d)
        self.statements(f.body)
        self._loops, self.gone = loops, False
        self._returns.pop()
        self.bound = saved
        for a, v in outs:
            self._assign(a, v, True)
        self._depth -= 1

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
