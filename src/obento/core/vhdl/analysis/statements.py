"""Statements that happen one after the other (IEEE 1076 clause 10), settled."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obento.core.limits import LimitReached
from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.context import AnalysisError, Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.meanings import Overloads
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.analysis.operators import static_length
from obento.core.vhdl.analysis.reads import signals_read, static_prefix
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object, Scope, Subprogram
from obento.core.vhdl.model.types import (
    ArrayType,
    EnumType,
    IntType,
    RangeX,
    RecordType,
    Subtype,
    Type,
    is_discrete,
    scalar_bounds,
)
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.packages.standard import BOOLEAN, SEVERITY, STRING, TIME, compatible
from obento.core.vhdl.syntax import ast

_MANY = 1 << 16


class Statements:
    """Settles statements; goes on after mistakes."""

    def __init__(self, context: Context, names: Names, expressions: Expressions, declarations: Declarations) -> None:
        self.context = context
        self.names = names
        self.expressions = expressions
        self.declarations = declarations

    def sequence(self, body: Sequence[ast.Stmt]) -> list[t.Stmt]:
        """Statements settled one after the other; one that is wrong is left out."""
        out: list[t.Stmt] = []
        for s in body:
            try:
                out += self._statement(s)
            except AnalysisError:
                continue
        return out

    def _statement(self, s: ast.Stmt) -> list[t.Stmt]:
        match s:
            case ast.SignalAssign():
                return self.signal_assign(s)
            case ast.VariableAssign():
                return self._variable_assign(s)
            case ast.If():
                arms = [
                    (None if c is None else self.expressions.condition(c), self.sequence(body)) for c, body in s.arms
                ]
                return [t.If(s.pos, arms)]
            case ast.Case():
                return [self._case(s)]
            case ast.Loop():
                return [self._loop(s)]
            case ast.Jump():
                return [self._jump(s)]
            case ast.Return():
                return [self._return(s)]
            case ast.Wait():
                return [self._wait(s)]
            case ast.Assert():
                return [self.assertion(s)]
            case ast.Call():
                return [self.procedure_call(s)]
        return [t.Null(s.pos)]

    # Targets.

    def target(self, e: ast.Expr, wanted: Type | None, kind: str) -> t.Expr:
        """What an assignment sets: a name, or an aggregate of names."""
        if isinstance(e, ast.Aggregate):
            if wanted is None:
                raise self.context.wrong("ambiguous", "the type of the value for these targets is not clear", e)
            return self._target_aggregate(e, wanted, kind)
        x = self.names.denote(e)
        if not isinstance(x, t.Expr):
            what = x.name if isinstance(x, Overloads) else "this"
            raise self.context.wrong("target", f"`{what}` cannot be assigned", e)
        self._check_target(x, e, kind)
        return x

    def _target_aggregate(self, e: ast.Aggregate, wanted: Type, kind: str) -> t.Expr:
        if isinstance(wanted, RecordType):
            values: list[t.Expr] = []
            for i, item in enumerate(e.items):
                number = i
                if item.choices and isinstance(item.choices[0], ast.Id):
                    found = wanted.number(item.choices[0].name)
                    number = found if found is not None else i
                values.insert(number, self.target(item.value, wanted.fields[number][1].type, kind))
            return t.RecordAgg(wanted, e.pos, values)
        if not isinstance(wanted, ArrayType):
            raise self.context.wrong("target", "an aggregate takes the parts of an array or record", e)
        items: list[tuple[RangeX | t.Expr | None, t.Expr, bool]] = []
        for item in e.items:
            place = self.expressions.expr(item.choices[0], wanted.indices[0].type) if item.choices else None
            x = self.target(item.value, wanted.element.type, kind)
            items.append((place, x, x.type is wanted))
        return t.ArrayAgg(wanted, e.pos, items, None, None)

    def _check_target(self, x: t.Expr, e: ast.Expr, kind: str) -> None:
        root = x
        while isinstance(root, t.Index | t.Slice | t.Field | t.AliasOf):
            root = root.prefix
        if isinstance(root, t.Deref):
            if kind == "signal":
                raise self.context.wrong("variable-sign", "what an access value points to is assigned with `:=`", e)
            return
        if isinstance(root, t.Const):
            raise self.context.wrong("constant", "a constant cannot be assigned", e)
        if not isinstance(root, t.Read):
            raise self.context.wrong("target", "this cannot be assigned", e)
        o = root.object
        o.read_at = 0 if o.read_at == e.pos else o.read_at
        o.written_at = o.written_at or e.pos
        if o.kind == "constant" or o.loop:
            what = "a loop's parameter" if o.loop else "a parameter of mode in" if o.is_param else "a constant"
            raise self.context.wrong("constant", f"`{o.name}` is {what} and cannot be assigned", e)
        if o.kind == "signal" and kind == "variable":
            raise self.context.wrong("signal-sign", f"`{o.name}` is a signal: it is assigned with `<=`, not `:=`", e)
        if o.kind == "variable" and kind == "signal":
            raise self.context.wrong(
                "variable-sign", f"`{o.name}` is a variable: it is assigned with `:=`, not `<=`", e
            )
        if o.mode == "in" and (o.is_port or o.is_param):
            what = "an input" if o.is_port else "a parameter of mode in"
            raise self.context.wrong(
                "input", f"`{o.name}` is {what} and cannot be assigned", e, "should it be `out`?" if o.is_port else ""
            )

    # Assignments.

    def signal_assign(self, s: ast.SignalAssign) -> list[t.Stmt]:
        """`<=` in all its forms; conditional and selected ones as if and case."""
        value = s.value
        if isinstance(value, ast.Waveform):
            return [self._one_assign(s, value)]
        if isinstance(value, ast.Conditional):
            arms: list[tuple[t.Expr | None, list[t.Stmt]]] = []
            for waveform, condition in value.arms:
                assert isinstance(waveform, ast.Waveform)
                arms.append(
                    (
                        None if condition is None else self.expressions.condition(condition),
                        [self._one_assign(s, waveform)],
                    )
                )
            return [t.If(s.pos, arms)]
        return [self._selection(value, lambda v: self._one_assign(s, v))]

    def _selection(self, value: ast.Selection, assign: Any) -> t.Case:
        selector = self.selector(value.selector)
        arms: list[tuple[list[Any] | None, list[t.Stmt]]] = []
        nodes: list[tuple[list[ast.Expr], int]] = []
        for v, choices in value.arms:
            arms.append((self.choices(choices, selector, value.matching), [assign(v)]))
            nodes.append((choices, choices[0].pos))
        self._covered(selector, arms, value, [choices for _, choices in value.arms])
        return t.Case(value.pos, selector, arms, value.matching)

    def _one_assign(self, s: ast.SignalAssign, waveform: ast.Waveform) -> t.Stmt:
        if not waveform.waves:
            return t.Null(s.pos)
        wanted: Type | None = None
        if isinstance(s.target, ast.Aggregate):
            wanted = self._aggregate_type(s.target, waveform.waves[0].value)
        target = self.target(s.target, wanted, "signal")
        waves: list[tuple[t.Expr | None, t.Expr | None]] = []
        for wave in waveform.waves:
            value = None if isinstance(wave.value, ast.Null) else self._value_for(target, wave.value)
            waves.append((value, self.expressions.expr(wave.after, TIME) if wave.after is not None else None))
        reject = self.expressions.expr(s.reject, TIME) if s.reject is not None else None
        self.note_driven(target, s.pos)
        return t.SetSignal(s.pos, target, waves, s.transport, reject)

    def _aggregate_type(self, target: ast.Aggregate, value: ast.Expr) -> Type:
        """The type that an aggregate of targets has: that of its value, or the vector that its parts make."""
        types = [i.type for i in self.expressions.interps(value)]
        if len(types) == 1 and isinstance(types[0], ArrayType | RecordType):
            return types[0]
        parts = [self.names.denote(item.value) for item in target.items]
        for x in parts:
            if isinstance(x, t.Expr) and isinstance(x.type, ArrayType) and any(compatible(y, x.type) for y in types):
                return x.type
        first = parts[0]
        if isinstance(first, t.Expr) and isinstance(first.type, EnumType):
            fitting = [a for a in self.context.arrays_of(first.type) if any(compatible(y, a) for y in types)]
            named = [a for a in fitting if a.name in ("std_logic_vector", "unsigned", "bit_vector")]
            if len(types) > 1 or fitting:
                return (sorted(named, key=lambda a: a.name != "std_logic_vector") or fitting)[0]
        raise self.context.wrong(
            "ambiguous", "the type of the value for these targets is not clear", value, "say it with type'(...)"
        )

    def _value_for(self, target: t.Expr, e: ast.Expr) -> t.Expr:
        """The value of an assignment, of the target's type and, where known, width."""
        if not isinstance(target, t.ArrayAgg | t.RecordAgg):
            sub = target.sub
            if isinstance(target.type, ArrayType) and (sub is None or sub.ranges is None):
                sub = self._range_of_target(target)
            x = self.expressions.expr(e, target.type, sub)
            if sub is not None:
                self.declarations.check_width(x, sub)
                self._check_range(x, sub, e)
            return x
        x = self.expressions.expr(e, target.type, self._joint_subtype(target))
        if isinstance(target, t.ArrayAgg):
            wanted = [static_length(v) if is_slice else 1 for _, v, is_slice in target.items]
            size = static_length(x)
            if size is not None and None not in wanted and sum(w for w in wanted if w is not None) != size:
                raise self.context.wrong(
                    "width", f"this is {size} elements wide, the targets together {sum(w or 0 for w in wanted)}", e
                )
        return x

    def _joint_subtype(self, target: t.Expr) -> Subtype | None:
        if not isinstance(target, t.ArrayAgg) or not isinstance(target.type, ArrayType):
            return None
        sizes = [static_length(v) if is_slice else 1 for _, v, is_slice in target.items]
        if None in sizes:
            return None
        index = target.type.indices[0].type
        return Subtype(
            target.type,
            [RangeX(t.Const(index, target.pos, 0), t.Const(index, target.pos, sum(s or 0 for s in sizes) - 1), False)],
        )

    def _range_of_target(self, target: t.Expr) -> Subtype:
        """The bounds of an array whose range is only known in the run, for `others`."""
        assert isinstance(target.type, ArrayType)
        if isinstance(target, t.Slice | t.AliasOf):
            return Subtype(target.type, [target.range if isinstance(target, t.Slice) else target.new])
        index = target.type.indices[0].type
        left, right = (t.ArrayAttr(index, target.pos, name, target, 0) for name in ("left", "right"))
        return Subtype(target.type, [RangeX(left, right, t.ArrayAttr(BOOLEAN, target.pos, "descending", target, 0))])

    def _check_range(self, x: t.Expr, s: Subtype, e: ast.Expr) -> None:
        """A constant that does not fit is said before anything runs."""
        if isinstance(x, t.Const) and isinstance(s.type, IntType):
            bounds = scalar_bounds(s)
            if bounds is not None and not bounds[0] <= x.value <= bounds[1]:
                raise self.context.wrong("value", f"{x.value} is outside of the range {bounds[0]} to {bounds[1]}", e)

    def _variable_assign(self, s: ast.VariableAssign) -> list[t.Stmt]:
        def one(value: ast.Expr) -> t.Stmt:
            wanted = self._aggregate_type(s.target, value) if isinstance(s.target, ast.Aggregate) else None
            target = self.target(s.target, wanted, "variable")
            return t.SetVariable(s.pos, target, self._value_for(target, value))

        if isinstance(s.value, ast.Conditional):
            arms: list[tuple[t.Expr | None, list[t.Stmt]]] = []
            for value, condition in s.value.arms:
                assert not isinstance(value, ast.Waveform)
                arms.append((None if condition is None else self.expressions.condition(condition), [one(value)]))
            return [t.If(s.pos, arms)]
        if isinstance(s.value, ast.Selection):
            return [self._selection(s.value, one)]
        return [one(s.value)]

    # What a process drives.

    def note_driven(self, target: t.Expr, pos: int) -> None:
        """A process drives a signal, or a part of one."""
        if isinstance(target, t.ArrayAgg):
            for _, v, _ in target.items:
                self.note_driven(v, pos)
            return
        if isinstance(target, t.RecordAgg):
            for v in target.values:
                self.note_driven(v, pos)
            return
        root, path = static_prefix(target)
        if root is None or (root.is_param and root.of_process is self.context.subprogram):
            return
        if self.context.subprogram is not None:
            if self.context.process is None and not root.is_param:
                node = ast.Node(pos, pos)
                raise self.context.wrong(
                    "target",
                    f"`{root.name}` is a signal from outside; hand it over as a parameter: signal s : out ...",
                    node,
                )
            self.context.subprogram.drives.append((target, pos))
        if self.context.process is not None and not root.is_param:
            self.drive(self.context.process, root, path, pos)

    def drive(self, process: t.Process, root: Object, path: tuple[Any, ...], pos: int) -> None:
        """A process has a driver for a part of a signal (14.7.2)."""
        paths = process.driven.setdefault(root, [])
        if path not in paths:
            paths.append(path)
            root.sources.append((id(process), pos, path))

    # Case.

    def selector(self, e: ast.Expr) -> t.Expr:
        """The expression that a case or selected assignment chooses by."""
        x = self.expressions.expr(e)
        if not (is_discrete(x.type) or (isinstance(x.type, ArrayType) and x.type.packed)):
            raise self.context.wrong(
                "selector",
                f"a case cannot choose by {x.type.shown}",
                e,
                "an enumeration, an integer or a vector of single bits",
            )
        return x

    def choices(self, given: Sequence[ast.Expr], selector: t.Expr, matching: bool) -> list[Any] | None:
        """Values and (low, high) ranges of one arm; None for `others`."""
        out: list[Any] = []
        size = static_length(selector) if isinstance(selector.type, ArrayType) else None
        for e in given:
            if isinstance(e, ast.Others):
                return None
            r = self.expressions.try_range(e, selector.type) if is_discrete(selector.type) else None
            if r is not None:
                bounds = r.bounds()
                if bounds is None:
                    raise self.context.wrong("constant", "a choice must be constant", e)
                out.append(bounds)
                continue
            x = self.expressions.expr(e, selector.type)
            if not isinstance(x, t.Const):
                raise self.context.wrong(
                    "constant", "a choice must be constant", e, "use if ... elsif for values that change"
                )
            if size is not None and isinstance(x.value, Arr) and len(x.value.v) != size:
                raise self.context.wrong("width", f"this choice has {len(x.value.v)} elements, the selector {size}", e)
            out.append(x.value)
        return out

    def _case(self, s: ast.Case) -> t.Case:
        selector = self.selector(s.selector)
        most = self.context.limits.case_arms
        if len(s.arms) > most:
            raise LimitReached(f"this `case` has more than {most} arms: more than can be run", s.pos)
        arms: list[tuple[list[Any] | None, list[t.Stmt]]] = []
        broken = False
        for choices, body, _ in s.arms:
            try:
                chosen = self.choices(choices, selector, s.matching)
            except AnalysisError:
                broken = True
                chosen = []
            arms.append((chosen, self.sequence(body)))
        if not broken:
            self._covered(selector, arms, s, [choices for choices, _, _ in s.arms])
        places = [choices[0].pos if choices else s.pos for choices, _, _ in s.arms]
        return t.Case(s.pos, selector, arms, s.matching, places)

    def _covered(
        self,
        selector: t.Expr,
        arms: Sequence[tuple[list[Any] | None, list[t.Stmt]]],
        node: ast.Case | ast.Selection,
        written: list[list[ast.Expr]],
    ) -> None:
        """Every value must have one arm, and one only (10.9); `written` are the choices of each arm as they stand."""
        for i, (choices, _) in enumerate(arms):
            if choices is None and i < len(arms) - 1:
                raise self.context.wrong("others", "`when others` must be the last arm", node)
        if node.matching:
            return
        has_others = bool(arms) and arms[-1][0] is None
        seen: set[Any] = set()
        ranges: list[tuple[int, int]] = []
        for number, (choices, _) in enumerate(arms):
            for place, choice in enumerate(choices or ()):
                where: ast.Node = written[number][place] if place < len(written[number]) else node
                if isinstance(choice, tuple):
                    if choice[1] - choice[0] < _MANY:
                        for v in range(choice[0], choice[1] + 1):
                            self._once(v, seen, selector, where)
                    else:
                        ranges.append(choice)
                else:
                    self._once(choice.v if isinstance(choice, Arr) else choice, seen, selector, where)
        if has_others:
            return
        if isinstance(selector.type, ArrayType):
            size = static_length(selector)
            element = selector.type.element.type
            count = len(element.literals) if isinstance(element, EnumType) else 0
            if size is not None and len(seen) < count ** min(size, 64):
                raise self._not_covered(node, selector)
            return
        bounds = scalar_bounds(selector.sub) if selector.sub is not None else None
        low, high = bounds if bounds is not None else (selector.type.low, selector.type.high)  # type: ignore[attr-defined]
        total = sum(b - a + 1 for a, b in ranges) + len([v for v in seen if low <= v <= high])
        if total < high - low + 1:
            missing = next((v for v in range(low, min(high + 1, low + _MANY)) if v not in seen), None)
            raise self._not_covered(node, selector, missing)

    def _once(self, value: Any, seen: set[Any], selector: t.Expr, node: ast.Node) -> None:
        if value in seen:
            shown = value
            if isinstance(selector.type, EnumType):
                shown = selector.type.literals[value]
            elif isinstance(selector.type, ArrayType) and isinstance(selector.type.element.type, EnumType):
                shown = '"' + "".join(selector.type.element.type.literals[c].strip("'") for c in value) + '"'
            raise self.context.wrong("duplicate-choice", f"the choice {shown} stands in two arms", node)
        seen.add(value)

    def _not_covered(self, node: ast.Node, selector: t.Expr, missing: int | None = None) -> AnalysisError:
        name = ""
        if missing is not None:
            name = selector.type.literals[missing] if isinstance(selector.type, EnumType) else str(missing)
        text = f"this case says nothing for {name}" if name else "this case does not cover every value"
        kind = (
            "U, X and the like are values too; "
            if isinstance(selector.type, ArrayType) or selector.type.name == "std_ulogic"
            else ""
        )
        return self.context.wrong(
            "not-covered", text, ast.Node(node.pos, node.pos + 4), f"{kind}add: when others => ..."
        )

    # Loops.

    def _loop(self, s: ast.Loop) -> t.Loop:
        loop = t.Loop(s.pos, s.label, None, None, None, [])
        scope = self.context.scope
        if s.range is not None:
            loop.range = self.expressions.discrete(s.range)
            scope = Scope(scope, s.label)
            sub = Subtype(loop.range.left.type, [loop.range])
            o = Object(
                s.parameter,
                "constant",
                sub,
                s.pos,
                self.context.emitter.fresh("i"),
                of_process=self.declarations.owner,
                loop=True,
            )
            scope.add(s.parameter, o)
            loop.parameter = o
        elif s.condition is not None:
            loop.condition = self.expressions.condition(s.condition)
        with self.context.aside(scope=scope, open_loops=[*self.context.open_loops, (s.label, loop)]):
            loop.body = self.sequence(s.body)
        return loop

    def _jump(self, s: ast.Jump) -> t.Jump:
        if not self.context.open_loops:
            raise self.context.wrong("misplaced", f"`{s.kind}` stands in no loop", s)
        loop = self.context.open_loops[-1][1]
        if s.target:
            loops = [found for label, found in self.context.open_loops if label == s.target]
            if not loops:
                raise self.context.wrong(
                    "label",
                    f"no loop around here is called `{s.target}`",
                    s,
                    did_you_mean(s.target, (n for n, _ in self.context.open_loops)),
                )
            loop = loops[-1]
        return t.Jump(s.pos, s.kind, loop, self.expressions.condition(s.condition) if s.condition is not None else None)

    def _return(self, s: ast.Return) -> t.Return:
        f = self.context.subprogram
        if f is None:
            raise self.context.wrong("misplaced", "`return` can only stand in a function or procedure", s)
        if f.result is None:
            if s.value is not None:
                raise self.context.wrong("return", "a procedure returns no value", s.value)
            return t.Return(s.pos, None)
        if s.value is None:
            raise self.context.wrong("return", f"the function `{f.name}` must return a value here", s)
        x = self.expressions.expr(s.value, f.result.type, f.result)
        if f.result.ranges is not None:
            self.declarations.check_width(x, f.result)
        return t.Return(s.pos, x)

    def _wait(self, s: ast.Wait) -> t.Wait:
        if self.context.subprogram is not None and self.context.subprogram.is_function:
            raise self.context.wrong("wait", "a function cannot wait", s)
        if self.context.process is not None and self.context.process.sensitivity is not None:
            raise self.context.wrong(
                "wait", "a process with a sensitivity list cannot wait", s, "take the list or the wait out"
            )
        signals = [self.waited(e) for e in s.on]
        until = self.expressions.condition(s.until) if s.until is not None else None
        time = None
        if s.time is not None:
            if isinstance(s.time, ast.Number):
                raise self.context.wrong("unit", "a time needs a unit", s.time, f"write {s.time.value} ns")
            time = self.expressions.expr(s.time, TIME)
        if until is not None and not signals:
            signals = signals_read(until)
        forever = not s.on and s.until is None and s.time is None
        return t.Wait(s.pos, signals, until, time, forever)

    def waited(self, e: ast.Expr) -> t.Expr:
        """A signal that is waited for."""
        x = self.names.denote(e)
        if not isinstance(x, t.Expr) or not self.names.is_signal(x):
            raise self.context.wrong("not-signal", "only signals can be waited for", e)
        return x

    # Assertions and calls.

    def assertion(self, s: ast.Assert) -> t.Assert:
        """An assertion or report (10.3, 10.4)."""
        condition = self.expressions.condition(s.condition) if s.condition is not None else None
        report = self.expressions.expr(s.report, STRING) if s.report is not None else None
        severity = self.expressions.expr(s.severity, SEVERITY) if s.severity is not None else None
        return t.Assert(s.pos, condition, report, severity)

    def procedure_call(self, s: ast.Call) -> t.CallProcedure:
        """A call of a procedure (10.7)."""
        name = s.name.prefix if isinstance(s.name, ast.Paren) else s.name
        args = s.name.args if isinstance(s.name, ast.Paren) else []
        found = self.names.denote(name)
        if not isinstance(found, Overloads):
            raise self.context.wrong("not-procedure", "this is no statement", s, "is an assignment meant?")
        procedures = [f for f in found.found if isinstance(f, Subprogram) and f.result is None]
        if not procedures:
            raise self.context.wrong("not-procedure", f"`{found.name}` is a function: its value must be used", s)
        fitting: list[tuple[Subprogram, list[ast.Expr | None]]] = []
        for f in procedures:
            order = self.names.match(f, args)
            if order is not None:
                fitting.append((f, order))
        if not fitting:
            given = ", ".join(" or ".join(i.type.shown for i in self.expressions.interps(a.value)[:2]) for a in args)
            hint = f"it wants {procedures[0].shown()}" if len(procedures) == 1 else ""
            raise self.context.wrong("no-call", f"no procedure `{found.name}` fits the arguments ({given})", s, hint)
        f, order = self._best_call(fitting)
        actuals = [self.names.argument(p, g) for p, g in zip(f.params, order, strict=True)]
        for p, x in zip(f.params, actuals, strict=True):
            if p.kind == "signal" and p.mode in ("out", "inout"):
                self.note_driven(x, s.pos)
        self.names.note_call(f)
        self.context.memo.clear()
        return t.CallProcedure(s.pos, f, actuals, found.receiver)

    def _best_call(
        self, fitting: list[tuple[Subprogram, list[ast.Expr | None]]]
    ) -> tuple[Subprogram, list[ast.Expr | None]]:
        """Of several that fit, the one for text where a string is given; inner declarations before outer ones."""
        for f, order in fitting:
            if any(p.subtype.type is STRING for p in f.params) and any(isinstance(g, ast.String) for g in order):
                return f, order
        return fitting[0]
