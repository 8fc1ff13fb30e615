"""Statements to the intermediate representation."""

from __future__ import annotations

from typing import Protocol

from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.ir.drivers import waits
from obento.core.ir.signal import Signal, Watch
from obento.core.limits import LimitReached
from obento.core.verilog.lowering.aggregates import left_to_right
from obento.core.verilog.lowering.arguments import for_variables, gives_back, has_references
from obento.core.verilog.lowering.collection_statements import CollectionStatements
from obento.core.verilog.lowering.comparisons import warn_of_covered_labels
from obento.core.verilog.lowering.cut_widths import warn_if_cut
from obento.core.verilog.lowering.effects import Effects
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.lowering.loops import LoopLowering
from obento.core.verilog.lowering.names import text_of
from obento.core.verilog.lowering.no_callable import no_callable
from obento.core.verilog.lowering.only_one import looked_at
from obento.core.verilog.lowering.sets import among
from obento.core.verilog.lowering.text_values import SETTERS
from obento.core.verilog.lowering.waits import WaitLowering
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import FunctionEntry, Inside, Scope, Vector
from obento.core.verilog.model.types import DataType, Dims, Shape
from obento.core.verilog.syntax import ast

VARIABLES = frozenset(
    [
        "reg",
        "logic",
        "integer",
        "time",
        "bit",
        "function",
        "real",
        "realtime",
        "int",
        "byte",
        "shortint",
        "longint",
        "string",
    ]
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

    def counted(self, event: Signal, position: int, scope: Scope) -> tuple[Signal, Signal]:
        """A count of how often an event is to be triggered, and one that triggers it when it changes."""
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
        self.nameless: list[Signal] = []
        """Variables that no text names, for what is called with storage of its own."""
        self._collector: Collector = expressions.collector
        self.scope: Scope = expressions.scope
        self._effects = expressions.effects = Effects(self)
        self._collections = CollectionStatements(expressions, self)
        self._loops = LoopLowering(expressions, self._effects, self._collections, self)
        self._waits = WaitLowering(expressions, around, self._effects, self)

    def error(self, code: str, text: str, node: ast.Node, hint: str = "") -> ElaborationError:
        """Report an error at a node; raise what is given back to leave off there."""
        return self._x.error(code, text, node, hint)

    def _inside(self, scope: Scope) -> StatementLowering:
        inner = StatementLowering(self._x.inside(scope), self._around, self._leave, self._result)
        inner._loops.open, inner.nameless = self._loops.open, self.nameless
        return inner

    def statement(self, s: ast.Stmt | None) -> ir.Stmt | None:
        """A lowered statement, behind what its expressions do. Several wrong ones inside a block are each reported."""
        if s is None:
            return None
        outside = self._effects.begin()
        try:
            made = self.by_kind(s)
        finally:
            before = self._effects.end(outside)
        return ir.Block(s.start, [*before, made]) if before and made is not None else made

    def by_kind(self, s: ast.Stmt) -> ir.Stmt | None:
        """A statement by itself, without what its expressions do first."""
        match s:
            case ast.Block():
                return self._block(s)
            case ast.Assign():
                return self.assign(s)
            case ast.If():
                chosen = ir.If(s.start, self._x.truth(s.cond), self.statement(s.then), self.statement(s.other))
                return looked_at(self._x, s, chosen) if s.check else chosen
            case ast.Case():
                return looked_at(self._x, s, self._case(s)) if s.check else self._case(s)
            case ast.For():
                return self._loops.counted_loop(s)
            case ast.Foreach():
                return self._loops.foreach(s)
            case ast.While():
                loop = self._loops.loop(s, s.cond, s.body, [])
                return ir.Block(s.start, [self.some(s.body), loop]) if s.at_least_once else loop
            case ast.RepeatTimes():
                return self._loops.repeat(s)
            case ast.TaskCall() if s.name == "$cast":
                return self._cast(s)
            case ast.TaskCall():
                return self._x.system.task(s) if s.name.startswith("$") else self._called(s)
            case ast.Timed():
                return self._waits.timed(s)
            case ast.Trigger():
                return self._waits.trigger(s)
            case ast.Disable():
                return self._disable(s)
            case ast.Deferred():
                return self._waits.deferred(s)
            case ast.WaitOrder():
                return self._waits.in_order(s)
            case ast.OfForked():
                return ir.WaitFork(s.start) if s.what == "wait" else ir.DisableFork(s.start)
            case ast.Hold():
                return self._hold(s)
            case ast.LetGo():
                return ir.LetGo(s.start, s.kind, self._held_targets(s.target))
            case ast.Leave():
                return self._left(s)
        raise AssertionError(type(s).__name__)

    def _cast(self, s: ast.TaskCall) -> ir.Stmt:
        """`$cast` as a statement: what does not fit is an error of the run (1800 clause 6.24.2)."""
        fits = self._effects.cast(self._x, ast.Call(s.start, s.end, s.name, s.args))
        text = [ast.String(s.start, s.end, "`$cast`: the target has no such value")]
        failed = self._x.system.task(ast.TaskCall(s.start, s.end, "$error", [*text]))
        return ir.If(s.start, fits, None, None if s.is_void else failed)

    def some(self, s: ast.Stmt | None) -> ir.Stmt:
        """A lowered statement, an empty block where there is none."""
        return self.statement(s) or ir.Block(s.start if s else 0, [])

    # Blocks.

    def _block(self, s: ast.Block) -> ir.Stmt:
        if s.declarations or s.name:
            scope = self._around.block_scope(s, self.scope)
            inside = self._inside(scope)
            declared, body = inside._entered(s), inside._statements(s)
            entry = self.scope.entries.get(s.name) if s.name else None
            label = entry.label if isinstance(entry, Inside) else None
        else:
            declared, body, label = [], self._statements(s), None
        if s.parallel:
            own = [t.signal for d in declared if isinstance(d, ir.Assign) for t in d.targets]
            return ir.Block(s.start, [*declared, ir.Fork(s.start, body, s.join, own)], label)
        return ir.Block(s.start, [*declared, *body], label)

    def _entered(self, s: ast.Block) -> list[ir.Stmt]:
        """What is done each time a block is entered."""
        return [made for item in s.declarations for made in self.entry_values(item)]

    def _statements(self, s: ast.Block) -> list[ir.Stmt]:
        body: list[ir.Stmt] = []
        wrong = False
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

    def entry_values(self, item: ast.Item) -> list[ir.Stmt]:
        """Start values of automatic variables, set each time their block or function is entered."""
        if not isinstance(item, ast.Declaration) or item.direction:
            return []
        made: list[ir.Stmt] = []
        for d in item.names:
            entry = self.scope.entries.get(d.name)
            if not isinstance(entry, Vector) or not entry.signal.automatic:
                continue
            if d.value is not None:
                name = ast.Name(d.start, d.start + len(d.name), d.name)
                made.append(self.some(ast.Assign(d.start, d.end, name, d.value, True)))
            elif item.lifetime:
                made.append(_blank(entry, d.start))
        return made

    def _left(self, s: ast.Leave) -> ir.Stmt:
        if s.what == "return":
            if self._leave is None:
                raise self.error("stray-return", "`return` leaves a function or task, and there is none around it", s)
            self._leave.used = True
            gone = ir.Disable(s.start, self._leave)
            self._check_value(s)
            if s.value is None or self._result is None:
                return gone
            target = [ir.Target(self._result.signal, 0, self._result.signal.width)]
            value = self._x.to_shape(s.value, self._result.shape)
            return ir.Block(s.start, [ir.Assign(s.start, target, value), gone])
        if not self._loops.open:
            raise self.error(
                "stray-break", f"`{s.what}` stands in no loop", s, "take it out; `return` leaves a function"
            )
        label = self._loops.open[-1][0 if s.what == "break" else 1]
        label.used = True
        return ir.Disable(s.start, label)

    def _check_value(self, s: ast.Leave) -> None:
        """A function gives a value where it has one, and no other thing does (1800 clauses 12.8 and 13.4.1)."""
        gives = self._result is not None and not self._result.is_void
        if s.value is not None and not gives:
            text = "nothing is given back here: this is a task or a `void` function"
            raise self.error("return-value", text, s.value, "write `return;`")
        if s.value is None and gives:
            raise self.error("return-value", "`return` is without the value of the function", s, "write `return ...;`")

    # Assignments.

    def assign(self, s: ast.Assign) -> ir.Stmt:
        """A blocking or non-blocking assignment (9.2)."""
        if isinstance(s.target, ast.Stream):
            return self._unpacked(s, s.target)
        if self.scope.system_verilog and self._is_event(s.target) and self._is_event(s.value):
            raise self.error(
                "not-yet", "an event that becomes another one (15.5.5) is not read by this version", s.target
            )
        chosen = self._x.selects.in_collection(s.target) if self.scope.system_verilog else None
        if chosen is not None:
            return self._collections.put(s, *chosen)
        if self._is_array_without_digits(s.target):
            return self._one_by_one(s)
        targets = self._x.targets(s.target)
        self.check_variables(s.target)
        width = sum(t.width for t in targets)
        value = self._x.settled(s.target, targets, self._x.to_shape(s.value, self._x.target_shape(s.target)))
        if not s.blocking and any(t.signal.automatic for t in targets):
            raise self.error(
                "automatic-later", "a variable of an automatic task cannot be written with `<=`", s.target, "write `=`"
            )
        taken = self._x.target_shape(s.target)
        if not taken.is_aggregate and not taken.type.is_text:
            warn_if_cut(self._x, s.value, width, s.start)
        timing = self._waits.timing(s.timing) if s.timing is not None else None
        if isinstance(timing, ir.WaitUntil):
            raise self.error("bad-timing", "`wait` cannot stand inside an assignment", s)
        return ir.Assign(s.start, targets, value, s.blocking, timing)

    def _is_event(self, e: ast.Expr) -> bool:
        entry = self._x.find(e) if isinstance(e, ast.Name | ast.Dotted) else None
        return isinstance(entry, Vector) and entry.kind == "event"

    def _unpacked(self, s: ast.Assign, stream: ast.Stream) -> ir.Stmt:
        """A stream on the left: the digits are put in its order, then dealt out from the left (1800 clause
        11.4.14.3)."""
        x, values = self._x, list[ir.Expr]()
        shapes = [x.target_shape(part) for part in stream.parts]
        if not all(shape.type.has_digits for shape in shapes):
            raise self.error("not-yet", "a stream into this is not read by this version", stream, "set its elements")
        total = sum(shape.width for shape in shapes)
        width = x.size(s.value)[0]
        if width < total:
            raise self.error("stream-wide", f"this takes {total} digits, and gets {width} (11.4.14.3)", s.value)
        given = ir.Slice(total, x.to_width(s.value, width), width - total)
        whole, low = x.aggregates.in_pieces(given, stream), total
        for shape in shapes:
            low -= shape.width
            values.append(left_to_right(ir.Slice(shape.width, whole, low), shape))
        targets = [t for part in stream.parts for t in x.targets(part)]
        for part in stream.parts:
            self.check_variables(part)
        value = values[0] if len(values) == 1 else ir.Concat(total, values)
        return ir.Assign(s.start, targets, ir.settled(targets, value), s.blocking)

    def _is_array_without_digits(self, target: ast.Expr) -> bool:
        if isinstance(target, ast.Concat):
            return False
        shape = self._x.target_shape(target)
        return bool(shape.dims) and (shape.type.is_real or shape.type.is_text) and not shape.type.kept

    def _one_by_one(self, s: ast.Assign) -> ir.Stmt:
        """A pattern for an array of strings or real numbers: its elements one after the other."""
        shape = self._x.target_shape(s.target)
        if not isinstance(s.value, ast.Pattern | ast.Concat) or len(shape.dims) != 1:
            text = "an array of strings or real numbers as a whole is not read by this version"
            raise self.error("not-yet", text, s.value, "assign its elements one by one")
        body: list[ir.Stmt] = []
        for index, value in self._x.aggregates.values_by_index(s.value, shape):
            one = index & (1 << 32) - 1
            at = ast.Number(s.start, s.start, None, True, one, one ^ (1 << 32) - 1, 32)
            element = ast.Index(s.start, s.end, s.target, at)
            body.append(self.assign(ast.Assign(s.start, s.end, element, value, s.blocking)))
        return ir.Block(s.start, body)

    def kept(self, name: str, of: DataType, dims: Dims, position: int) -> Vector:
        """A variable without a name."""
        signal = self._scratch(Shape(of, dims).width, f"{self.scope.path}.{name}", position)
        signal.real, signal.text = of.is_real, of.is_text
        signal.collection = of.collected.runs_as() if of.collected is not None else None
        return Vector(signal, of, "logic", dims, position)

    def _scratch(self, width: int, name: str, position: int) -> Signal:
        signal = self._around.scratch(width, name, position)
        signal.automatic = self.scope.automatic
        self.nameless.append(signal)
        return signal

    def called_for(self, e: ast.Call, entry: FunctionEntry, result: list[ir.Target]) -> ir.Stmt:
        """A call of a function that writes to its arguments; its value goes to a place."""
        call = ast.TaskCall(e.start, e.end, e.name, e.args, e.path, e.named)
        return self._enabled(call, entry, self._around.callable(entry), [result])

    def check_variables(self, target: ast.Expr) -> None:
        """Processes write to variables only (6.2)."""
        for name in names_written(target):
            self._x.selects.check_view(name)
            entry = self._x.find(name)
            if isinstance(entry, Vector) and entry.is_constant and name.start != entry.start:
                text = (
                    f"`{text_of(name)}` is declared with `const`: it keeps the value it began with (1800 clause 6.20.6)"
                )
                raise self.error("constant-written", text, name, "take `const` out, or write another variable")
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
        most = self._x.limits.case_arms
        if len(s.items) > most:
            raise LimitReached(f"this `{s.kind}` has more than {most} arms: more than can be run", s.start)
        if s.kind == "inside" or self._x.texts.is_text(s.subject):
            return self._case_by_tests(s)
        labels = [label for item in s.items for label in item.labels if isinstance(label, ast.Expr)]
        sizes = [self._x.size(e) for e in (s.subject, *labels)]
        width = max(w for w, _ in sizes)
        signed = all(sign for _, sign in sizes)
        subject = self._x.lower(s.subject, width, signed)
        match = {"case": "ceq", "casez": "casez", "casex": "casex"}[s.kind]
        arms = []
        for item in s.items:
            lowered = [self._x.lower(e, width, signed) for e in item.labels if isinstance(e, ast.Expr)]
            arms.append(ir.CaseArm(lowered, self.statement(item.body), item.start))
        warn_of_covered_labels(self._x, match, arms, s.items)
        return ir.Case(s.start, match, subject, arms, self.statement(s.default))

    def _case_by_tests(self, s: ast.Case) -> ir.Stmt:
        """`case ... inside`, and a case of strings: the first arm that has the value (1800 clause 12.5.4)."""
        other = self.statement(s.default)
        for item in reversed(s.items):
            cond = among(self._x, s.subject, item.labels) if s.kind == "inside" else self._same_text(s, item)
            other = ir.If(item.start, cond, self.statement(item.body), other)
        return other or ir.Block(s.start, [])

    def _same_text(self, s: ast.Case, item: ast.CaseItem) -> ir.Expr:
        found: ir.Expr | None = None
        for label in item.labels:
            assert isinstance(label, ast.Expr)
            test = self._x.texts.relation("==", ast.Binary(label.start, label.end, "==", s.subject, label))
            found = test if found is None else ir.Binary(1, "or", found, test)
        assert found is not None
        return found

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

    def _called(self, s: ast.TaskCall) -> ir.Stmt:
        """A task, or a method that changes a string or a collection."""
        if s.path is not None and self.scope.system_verilog:
            changed = self._collections.called(s)
            if changed is not None:
                return changed
        method = self._x.texts.method(s)
        if method is None or method[1] not in SETTERS:
            return self._task(s)
        self.check_variables(method[0])
        return ir.Assign(s.start, self._x.places(method[0]), self._x.texts.setter(*method, s))

    def _task(self, s: ast.TaskCall) -> ir.Stmt:
        entry = self._x.find_callable(s)
        if not isinstance(entry, FunctionEntry):
            raise no_callable(self._x, s, entry, "task")
        if not entry.item.task and not gives_back(entry.item):
            if entry.item.type.word != "void" and not s.is_void:
                raise self.error(
                    "function-as-task",
                    f"`{s.name}` is a function: its value must be used",
                    s,
                    "a task is called like this",
                )
            return self._void(s)
        if entry.item.task:
            entry = for_variables(self._x, s, entry)
        task = self._around.callable(entry)
        unwanted: list[list[ir.Target]] = []
        if entry.shape is not None and entry.item.type.word != "void":
            width = entry.shape.width
            unwanted = [[ir.Target(self._scratch(width, f"{s.name}@{s.start}", s.start), 0, width)]]
        return self._enabled(s, entry, task, unwanted)

    def _enabled(
        self, s: ast.TaskCall, entry: FunctionEntry, task: ir.Function, results: list[list[ir.Target]]
    ) -> ir.Stmt:
        """A task with its arguments; `results` are where further outputs go."""
        given: list[ir.Expr] = []
        taken: list[list[ir.Target]] = []
        copies: list[ir.Stmt] = []
        outputs = iter(task.outputs)
        for formal, arg, scope in self._x.bound(s, entry):
            if formal.direction == "same":
                self.check_variables(arg)
                continue
            if formal.direction != "out":
                given.append(self._x.to_shape_in(scope, arg, formal.shape))
            if formal.direction != "in":
                self.check_variables(arg)
                taken.append(self._taken(self._x.places(arg), next(outputs), s, copies))
        if has_references(entry) and waits(task.body):
            text = "what is given by reference to a task that waits is a whole variable that stays"
            raise self.error("not-yet", text, s, "give it a variable of the module")
        call = ir.TaskCall(s.start, task, given, taken + results)
        return ir.Block(s.start, [call, *copies]) if copies else call

    def _taken(
        self, targets: list[ir.Target], output: Signal, s: ast.TaskCall, copies: list[ir.Stmt]
    ) -> list[ir.Target]:
        """Where an output goes; where a two-state variable takes one that may be unknown, by way of a variable of its
        own."""
        if output.two_state or not any(t.signal.two_state for t in targets):
            return targets
        width = sum(t.width for t in targets)
        between = self._scratch(width, f"{output.name}@{s.start}", s.start)
        copies.append(ir.Assign(s.start, targets, ir.settled(targets, ir.Ref(width, between))))
        return [ir.Target(between, 0, width)]

    def _void(self, s: ast.TaskCall) -> ir.Stmt:
        """A function that is called for what it does."""
        call = ast.Call(s.start, s.end, s.name, s.args, s.path, s.named)
        function = self._x.callee(call)
        assert function.result is not None
        return ir.If(
            s.start, ir.Unary(1, "ror", ir.Call(function.result.width, function, self._x.given(call))), None, None
        )

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
        value = self._x.settled(s.target, targets, self._x.to_shape(s.value, self._x.target_shape(s.target)))
        follower = self._around.follower(value, s, self.scope)
        follower.real = len(targets) == 1 and targets[0].signal.real
        return ir.Hold(s.start, s.kind, targets, value, follower)


def _blank(variable: Vector, position: int) -> ir.Stmt:
    """A variable as it is when nothing was done to it."""
    signal = variable.signal
    value: ir.Expr = ir.Const(signal.width, *(signal.initial or (0, 0)))
    if signal.collection is not None:
        value = ir.CollectionOp(64, "made", [], signal.collection)
    elif signal.text:
        value = ir.TextConst(64, "")
    elif signal.real:
        value = ir.RealConst(64, 0.0)
    return ir.Assign(position, [ir.Target(signal, 0, signal.width)], value)


def names_written(target: ast.Expr) -> list[ast.Name | ast.Dotted]:
    """The names on a left side."""
    if isinstance(target, ast.Concat):
        return [n for part in target.parts for n in names_written(part)]
    while isinstance(target, ast.Index | ast.Part | ast.Member):
        target = target.base
    return [target] if isinstance(target, ast.Name | ast.Dotted) else []
