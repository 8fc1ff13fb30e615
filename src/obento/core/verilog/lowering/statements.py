"""Statements to the intermediate representation."""

from __future__ import annotations

from typing import Protocol

from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.signal import Signal, Watch
from obento.core.limits import LimitReached
from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.cut_widths import warn_if_cut
from obento.core.verilog.lowering.expressions import ExpressionLowering, text_of
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import FunctionEntry, Inside, Scope, Vector
from obento.core.verilog.syntax import ast

VARIABLES = frozenset(
    ["reg", "logic", "integer", "time", "bit", "function", "real", "realtime", "int", "byte", "shortint", "longint"]
)
"""Kinds of declarations that processes may write to."""


class Surroundings(Protocol):
    """What statements need of the module around them."""

    def block_scope(self, block: ast.Block, scope: Scope) -> Scope:
        """The level of names of a block with a name or declarations of its own."""
        ...

    def watches(self, terms: list[ast.EventTerm], x: ExpressionLowering) -> list[Watch]:
        """What an event control waits for."""
        ...

    def callable(self, entry: FunctionEntry) -> ir.Function:
        """A function or task, lowered."""
        ...

    def follower(self, value: ir.Expr, s: ast.Hold, scope: Scope) -> Signal:
        """A signal that always has this value."""
        ...

    def scratch(self, width: int, name: str, position: int) -> Signal:
        """A variable without a name."""
        ...


class StatementLowering:
    """Lowers the body of one process, function or task. `leave` is the label that `return` goes to, `result` what it
    sets."""

    def __init__(
        self,
        expressions: ExpressionLowering,
        around: Surroundings,
        leave: ir.Label | None = None,
        result: Vector | None = None,
    ) -> None:
        self._x = expressions
        self._around = around
        self._leave = leave
        self._result = result
        self._loops: list[tuple[ir.Label, ir.Label]] = []
        self._collector: Collector = expressions.collector
        self.scope: Scope = expressions.scope

    def error(self, code: str, text: str, node: ast.Node, hint: str = "") -> ElaborationError:
        """Report an error at a node; raise what is given back to leave off there."""
        return self._x.error(code, text, node, hint)

    def _inside(self, scope: Scope) -> StatementLowering:
        inner = StatementLowering(self._x.inside(scope), self._around, self._leave, self._result)
        inner._loops = self._loops
        return inner

    def statement(self, s: ast.Stmt | None) -> ir.Stmt | None:
        """A lowered statement. Several wrong ones inside a block are each reported."""
        match s:
            case None:
                return None
            case ast.Block():
                return self._block(s)
            case ast.Assign():
                return self.assign(s)
            case ast.If():
                return ir.If(s.start, self._x.truth(s.cond), self.statement(s.then), self.statement(s.other))
            case ast.Case():
                return self._case(s)
            case ast.For():
                return ir.Block(s.start, [self.assign(s.init), self._loop(s, s.cond, s.body, s.step)])
            case ast.While():
                loop = self._loop(s, s.cond, s.body, None)
                return ir.Block(s.start, [self._some(s.body), loop]) if s.at_least_once else loop
            case ast.RepeatTimes():
                return self._repeat(s)
            case ast.TaskCall():
                return self._x.system.task(s) if s.name.startswith("$") else self._task(s)
            case ast.Timed():
                return self._timed(s)
            case ast.Trigger():
                return self._trigger(s)
            case ast.Disable():
                return self._disable(s)
            case ast.Hold():
                return self._hold(s)
            case ast.LetGo():
                return ir.LetGo(s.start, s.kind, self._held_targets(s.target))
            case ast.Leave():
                return self._left(s)
        raise AssertionError(type(s).__name__)

    def _some(self, s: ast.Stmt | None) -> ir.Stmt:
        return self.statement(s) or ir.Block(s.start if s else 0, [])

    # Blocks.

    def _block(self, s: ast.Block) -> ir.Stmt:
        if s.declarations or s.name:
            scope = self._around.block_scope(s, self.scope)
            inside = self._inside(scope)
            body = inside._statements(s)
            entry = self.scope.entries.get(s.name) if s.name else None
            label = entry.label if isinstance(entry, Inside) else None
        else:
            body, label = self._statements(s), None
        if s.parallel:
            return ir.Block(s.start, [ir.Fork(s.start, body, s.join)], label)
        return ir.Block(s.start, body, label)

    def _statements(self, s: ast.Block) -> list[ir.Stmt]:
        body: list[ir.Stmt] = []
        wrong = False
        for item in s.declarations:
            if isinstance(item, ast.Declaration):
                body += self._entry_values(item)
        for inner in s.body:
            try:
                lowered = self.statement(inner)
                if lowered is not None:
                    body.append(lowered)
            except ElaborationError:
                wrong = True
        if wrong:
            raise ElaborationError
        return body

    def _entry_values(self, item: ast.Declaration) -> list[ir.Stmt]:
        """Start values of automatic variables, set each time the block is entered."""
        if not self.scope.automatic:
            return []
        return [
            self.assign(ast.Assign(d.start, d.end, ast.Name(d.start, d.start + len(d.name), d.name), d.value, True))
            for d in item.names
            if d.value is not None
        ]

    def _loop(self, s: ast.Stmt, cond: ast.Expr | None, body: ast.Stmt | None, step: ast.Assign | None) -> ir.Stmt:
        out, on = ir.Label("break"), ir.Label("continue")
        self._loops.append((out, on))
        inner = self._some(body)
        self._loops.pop()
        if on.used:
            inner = ir.Block(s.start, [inner], on)
        if step is not None:
            inner = ir.Block(s.start, [inner, self.assign(step)])
        condition = ir.Const(1, 1, 0) if cond is None else self._x.truth(cond)
        loop: ir.Stmt = ir.Loop(s.start, condition, inner)
        return ir.Block(s.start, [loop], out) if out.used else loop

    def _repeat(self, s: ast.RepeatTimes) -> ir.Stmt:
        out, on = ir.Label("break"), ir.Label("continue")
        self._loops.append((out, on))
        body = self._some(s.body)
        self._loops.pop()
        if on.used:
            body = ir.Block(s.start, [body], on)
        loop: ir.Stmt = ir.Repeat(s.start, self._x.self_determined(s.count), self._x.size(s.count)[1], body)
        return ir.Block(s.start, [loop], out) if out.used else loop

    def _left(self, s: ast.Leave) -> ir.Stmt:
        if s.what == "return":
            if self._leave is None:
                raise self.error("stray-return", "`return` leaves a function or task, and there is none around it", s)
            self._leave.used = True
            gone = ir.Disable(s.start, self._leave)
            if s.value is None or self._result is None:
                return gone
            target = [ir.Target(self._result.signal, 0, self._result.signal.width)]
            self._x.check_enum(self._result, s.value)
            value = ir.settled(target, self._x.to_type(s.value, self._result.signal.width, self._result.is_real))
            return ir.Block(s.start, [ir.Assign(s.start, target, value), gone])
        if not self._loops:
            raise self.error("stray-break", f"`{s.what}` stands in no loop", s)
        label = self._loops[-1][0 if s.what == "break" else 1]
        label.used = True
        return ir.Disable(s.start, label)

    # Assignments.

    def assign(self, s: ast.Assign) -> ir.Stmt:
        """A blocking or non-blocking assignment (9.2)."""
        targets = self._x.targets(s.target)
        self.check_variables(s.target)
        width = sum(t.width for t in targets)
        real = len(targets) == 1 and targets[0].signal.real
        self._x.check_enum(self._x.whole_of(s.target), s.value)
        value = ir.settled(targets, self._x.to_type(s.value, width, real))
        if not s.blocking and any(t.signal.automatic for t in targets):
            raise self.error(
                "automatic-later", "a variable of an automatic task cannot be written with `<=`", s.target, "write `=`"
            )
        warn_if_cut(self._x, s.value, width, s.start)
        timing = self._timing(s.timing) if s.timing is not None else None
        if isinstance(timing, ir.WaitUntil):
            raise self.error("bad-timing", "`wait` cannot stand inside an assignment", s)
        return ir.Assign(s.start, targets, value, s.blocking, timing)

    def check_variables(self, target: ast.Expr) -> None:
        """Processes write to variables only (6.2)."""
        for name in names_written(target):
            entry = self._x.find(name)
            if isinstance(entry, Vector) and entry.kind not in VARIABLES:
                if entry.kind == "event":
                    raise self.error(
                        "event-written",
                        f"`{text_of(name)}` is an event and holds no value",
                        name,
                        f"write `-> {text_of(name)};`",
                    )
                raise self.error(
                    "net-in-process",
                    f"`{text_of(name)}` is a wire and cannot be written inside a process",
                    name,
                    f"declare it as `reg`: `output reg {text_of(name)}`, or use `assign`",
                )

    def _case(self, s: ast.Case) -> ir.Stmt:
        labels = [label for item in s.items for label in item.labels]
        most = self._x.limits.case_arms
        if len(s.items) > most:
            raise LimitReached(f"this `{s.kind}` has more than {most} arms: more than can be run", s.start)
        sizes = [self._x.size(e) for e in (s.subject, *labels)]
        width = max(w for w, _ in sizes)
        signed = all(sign for _, sign in sizes)
        subject = self._x.lower(s.subject, width, signed)
        match = {"case": "ceq", "casez": "casez", "casex": "casex"}[s.kind]
        arms = []
        for item in s.items:
            lowered = [self._x.lower(label, width, signed) for label in item.labels]
            arms.append(ir.CaseArm(lowered, self.statement(item.body), item.start))
        return ir.Case(s.start, match, subject, arms, self.statement(s.default))

    # Time and events.

    def _timed(self, s: ast.Timed) -> ir.Stmt:
        return ir.Block(s.start, [self._timing(s.timing), self._some(s.body)])

    def _timing(self, t: ast.Timing) -> ir.Delay | ir.Await | ir.WaitUntil:
        x = self._x
        if t.delay is not None:
            amount = x.reals.lower(t.delay) if x.reals.is_real(t.delay) else x.self_determined(t.delay)
            tick, step = self.scope.times
            return ir.Delay(t.start, amount, tick, step)
        if t.wait is not None:
            cond = x.truth(t.wait)
            return ir.WaitUntil(t.start, cond, watches_of(stretches_read(cond)))
        assert t.control is not None
        if t.control.terms is None:
            raise self.error("star-inside", "`@*` stands behind `always` only", t, "name what is waited for")
        count = x.self_determined(t.count) if t.count is not None else None
        return ir.Await(t.start, self._around.watches(t.control.terms, x), count)

    def _trigger(self, s: ast.Trigger) -> ir.Stmt:
        entry = self._x.entry(s.event) if isinstance(s.event, ast.Name | ast.Dotted) else None
        if not isinstance(entry, Vector) or entry.kind != "event":
            raise self.error(
                "not-an-event", "`->` triggers an event, and this is none", s.event, "declare it with `event`"
            )
        return ir.Trigger(s.start, entry.signal)

    def _disable(self, s: ast.Disable) -> ir.Stmt:
        entry = (
            self.scope.find_path(s.path)
            if len(s.path) > 1
            else (self.scope.find(s.path[0]) or self.scope.find_path(s.path))
        )
        label = None
        if isinstance(entry, Inside):
            label = entry.label
        elif isinstance(entry, FunctionEntry):
            label = self._around.callable(entry).label
        if label is None:
            raise self.error(
                "no-block",
                f"there is no block or task `{'.'.join(s.path)}` to disable",
                s,
                "a block gets its name by `begin : name`",
            )
        label.used = True
        return ir.Disable(s.start, label)

    # Tasks.

    def _task(self, s: ast.TaskCall) -> ir.Stmt:
        entry = self._x.find_callable(s)
        if not isinstance(entry, FunctionEntry):
            tasks = [n for n in self.scope.all_names() if isinstance(self.scope.find(n), FunctionEntry)]
            raise self.error("no-task", f"there is no task `{s.name}`", s, did_you_mean(s.name, tasks))
        args = [a for a in s.args if a is not None]
        if not entry.item.task:
            if entry.item.kind != "void":
                raise self.error(
                    "function-as-task",
                    f"`{s.name}` is a function: its value must be used",
                    s,
                    "a task is called like this",
                )
            return self._void(s, entry, args)
        task = self._around.callable(entry)
        directions = argument_directions(entry.item)
        if len(args) != len(directions):
            raise self.error("arguments", f"`{s.name}` takes {len(directions)} values, here are {len(args)}", s)
        given: list[ir.Expr] = []
        results: list[list[ir.Target]] = []
        copies: list[ir.Stmt] = []
        inputs, outputs = iter(task.params), iter(task.outputs)
        for direction, arg in zip(directions, args, strict=True):
            if direction != "out":
                param = next(inputs)
                given.append(self._x.argument(arg, param))
            if direction != "in":
                self.check_variables(arg)
                results.append(self._taken(self._x.targets(arg), next(outputs), s, copies))
        call = ir.TaskCall(s.start, task, given, results)
        return ir.Block(s.start, [call, *copies]) if copies else call

    def _taken(
        self, targets: list[ir.Target], output: Signal, s: ast.TaskCall, copies: list[ir.Stmt]
    ) -> list[ir.Target]:
        """Where an output goes; where a two-state variable takes one that may be unknown, by way of a variable of its
        own."""
        if output.two_state or not any(t.signal.two_state for t in targets):
            return targets
        width = sum(t.width for t in targets)
        between = self._around.scratch(width, f"{output.name}@{s.start}", s.start)
        copies.append(ir.Assign(s.start, targets, ir.settled(targets, ir.Ref(width, between))))
        return [ir.Target(between, 0, width)]

    def _void(self, s: ast.TaskCall, entry: FunctionEntry, args: list[ast.Expr]) -> ir.Stmt:
        function = self._around.callable(entry)
        assert function.result is not None
        given = [self._x.argument(a, p) for a, p in zip(args, function.params, strict=True)]
        return ir.If(s.start, ir.Unary(1, "ror", ir.Call(function.result.width, function, given)), None, None)

    # Holding.

    def _held_targets(self, target: ast.Expr) -> list[ir.Target]:
        targets = self._x.targets(target)
        for t in targets:
            if t.offsets:
                raise self.error(
                    "held-select",
                    "only a whole signal or constant parts of a net can be held (1364-2005 clause 9.3)",
                    target,
                )
            if t.signal.element:
                raise self.error(
                    "held-memory",
                    "an element of an array cannot be held (1364-2005 clause 9.3)",
                    target,
                    "copy it to a variable first",
                )
            t.signal.held = True
        return targets

    def _hold(self, s: ast.Hold) -> ir.Stmt:
        targets = self._held_targets(s.target)
        if s.kind == "assign":
            self.check_variables(s.target)
        width = sum(t.width for t in targets)
        value = ir.settled(targets, self._x.to_type(s.value, width, len(targets) == 1 and targets[0].signal.real))
        follower = self._around.follower(value, s, self.scope)
        follower.real = len(targets) == 1 and targets[0].signal.real
        return ir.Hold(s.start, s.kind, targets, value, follower)


def argument_directions(item: ast.FunctionItem) -> list[str]:
    """Of each argument of a task or function, in order, whether it goes in, out or both ways."""
    return [d.direction for d in item.declarations if isinstance(d, ast.Declaration) and d.direction for _ in d.names]


def names_written(target: ast.Expr) -> list[ast.Name | ast.Dotted]:
    """The names on a left side."""
    if isinstance(target, ast.Concat):
        return [n for part in target.parts for n in names_written(part)]
    while isinstance(target, ast.Index | ast.Part):
        target = target.base
    return [target] if isinstance(target, ast.Name | ast.Dotted) else []
