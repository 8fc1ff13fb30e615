"""Statements and subprograms on digits: loops are unrolled, functions written out where they are called."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from obento.core.ir import nodes as ir
from obento.core.ir.signal import Signal
from obento.core.vhdl.analysis.reads import static_prefix
from obento.core.vhdl.code.bodies import subtype_of, walk
from obento.core.vhdl.lanes.buses import Buses
from obento.core.vhdl.lanes.expressions import LaneExpressions
from obento.core.vhdl.lanes.loops import Loops
from obento.core.vhdl.lanes.values import (
    Digits,
    NoLanes,
    bit,
    bits_of,
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


class LaneStatements(LaneExpressions):
    """Lowers statements of one process after the other. `gone` tells that what was lowered last leaves the subprogram
    in any case."""

    gone: bool
    _body: list[ir.Stmt]
    _buses: Buses
    _computed: Callable[[t.Expr], Any]
    _delayed: bool
    _depth: int
    _loops: Loops
    _position: int
    _process: t.Process | None
    _returns: list[_Leaving]

    def signal(self, o: Object) -> Signal:
        """The digits of a VHDL signal."""
        raise NotImplementedError

    def variable(self, o: Object) -> Signal:
        """The digits of a variable."""
        raise NotImplementedError

    def scratch(self, name: str, width: int) -> Signal:
        """Digits that nobody else sees."""
        raise NotImplementedError

    def add(self, s: ir.Stmt) -> None:
        """One more statement."""
        raise NotImplementedError

    def set(self, signal: Signal, value: ir.Expr) -> None:
        """Give scratch digits a value."""
        raise NotImplementedError

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
            fixed = self._fixed
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
                self.bound, self._fixed = outer, fixed
                del fixed[id(number.x)]
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
                return self.variable(x.object), 0, [], x.object.subtype
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
        done = self.scratch("returned", 1)
        # Before anything is bound: what calls itself has its own arguments again when the call is over.
        saved = {o: self.bound.get(o) for o in (*f.params, *(d.object for d in f.decls if isinstance(d, t.Declare)))}
        position = self._position
        # What is known of an expression here is not of the same one in a call further in.
        fixed, self._fixed = self._fixed, {}
        for p, a in zip(f.params, args, strict=True):
            self.bound[p] = a
        result_subtype = self._result_subtype(f)
        single = f.body[0] if len(f.body) == 1 and not f.decls else None
        if isinstance(single, t.Return) and single.value is not None:
            found = self.fitted(self.value(single.value), f.result)
        else:
            leaving = _Leaving(done, True)
            if result_subtype is not None:
                leaving.of(self.scratch("result", bits_of(result_subtype)), result_subtype)
            self.set(done, bit(False))
            self._write_out(f, leaving)
            self.escape(not_(same(ir.Ref(1, done), bit(True))))
            if leaving.result is None or leaving.subtype is None:
                raise NoLanes("a result whose size is only known in the run")
            found = self._of(ir.Ref(leaving.result.width, leaving.result), leaving.subtype)
        for o, before in saved.items():
            if before is None:
                self.bound.pop(o, None)
            else:
                self.bound[o] = before
        self._position, self._fixed = position, fixed
        self._depth -= 1
        return found

    def _write_out(self, f: Subprogram, leaving: _Leaving) -> None:
        """The body of a subprogram whose parameters are bound."""
        assert f.body is not None
        self._returns.append(leaving)
        loops, self._loops = self._loops, self._new_loops()
        for d in f.decls:
            self._statement(d)
        self.statements(f.body)
        self._loops, self.gone = loops, False
        self._returns.pop()

    def _result_subtype(self, f: Subprogram) -> Subtype | None:
        """The subtype of a result; for arrays that of a returned local, whose range the bound arguments settle."""
        assert f.result is not None and f.body is not None
        if not isinstance(f.result.type, ArrayType) or f.result.ranges is not None:
            return f.result
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
        fixed, self._fixed = self._fixed, {}
        self._write_out(f, _Leaving(done, False))
        self.bound, self._fixed = saved, fixed
        for a, v in outs:
            self._assign(a, v, True)
        self._depth -= 1

    def _new_loops(self) -> Loops:
        """The loops of a body of its own."""
        raise NotImplementedError
