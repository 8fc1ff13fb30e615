"""What the rooms of single items share while one use of a module is elaborated."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.ir.design import Instance, Process, ScopeOfNames, Variable
from obento.core.ir.drivers import (
    expressions,
    functions_called_for_values,
    read_by_function,
    statements,
    stretches_read,
    targets,
)
from obento.core.ir.evaluate import NotConstant, evaluate, evaluate_real, round_half_away
from obento.core.ir.signal import Delays, Signal, Watch
from obento.core.ir.texts import from_digits, to_kept
from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.lowering.names import text_of
from obento.core.verilog.lowering.statements import VARIABLES
from obento.core.verilog.model.builder import Builder, Overrides
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Broken, FunctionEntry, Inside, Outside, Parameter, Scope, Vector
from obento.core.verilog.model.types import Shape, builtin, kept
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import WIDTHS

_STRENGTH_LEVELS = {"supply": 7, "strong": 6, "pull": 5, "weak": 3, "highz": 0}
_NEVER_DRIVEN = VARIABLES - {"logic", "bit"}
_NEVER_DRIVEN_IN_SV = frozenset(["function", "real", "realtime"])


@dataclass(frozen=True, slots=True)
class Given:
    """What one use of a module is given: values and types of its parameters, wires that its ports may simply be part
    of, interfaces that are ports. `connected` are the ports that get something, all where it is None."""

    overrides: Overrides = field(default_factory=dict)
    types: Mapping[str, Shape] = field(default_factory=dict)
    outside: dict[str, Outside] = field(default_factory=dict)
    interfaces: Mapping[str, Inside] = field(default_factory=dict)
    connected: frozenset[str] | None = None


@dataclass(frozen=True, slots=True)
class Nested:
    """What stands inside of a module and is elaborated as the module itself: the way back up from the rooms of single
    items.

    `items` declares the items of one level and leaves what uses them as work; `child` declares an instance below;
    `function` gives a function or task that is called, with its body."""

    items: Callable[[ModuleContext, list[ast.Item], Scope], None]
    child: Callable[[ModuleContext, ast.Module, str, Scope, Given], ModuleContext]
    function: Callable[[ModuleContext, FunctionEntry], ir.Function]


class ModuleContext:
    """One use of a module. `outside` gives the wires that ports may simply be part of, `joined` those that became so;
    `types` are what its type parameters are given."""

    def __init__(
        self,
        builder: Builder,
        module: ast.Module,
        scope: Scope,
        given: Given,
        instance: Instance,
        shown: ScopeOfNames,
        depth: int,
        nested: Nested,
    ) -> None:
        self.b = builder
        self.collector = builder.collector
        self.m = module
        self.scope = scope
        self.overrides = given.overrides
        self.outside = given.outside
        self.connected = given.connected
        self.instance = instance
        self.shown = shown
        self.depth = depth
        self.nested = nested
        self.types = given.types
        self.joined: set[str] = set()
        self.directions: dict[str, tuple[str, ast.Declarator]] = {}
        self.generated: dict[int, int] = {}

    def x(self, scope: Scope, implicit: bool = False) -> ExpressionLowering:
        """Expressions in a scope; undeclared names become wires of one bit where `implicit` says so (4.5)."""
        lowering = ExpressionLowering(scope, self.collector, self.b.limits, self.callable)
        if implicit and self.m.nettype != "none":
            lowering.implicit = lambda name: self._implicit(name, scope)
        return lowering

    def error(self, code: str, text: str, node: ast.Node, hint: str = "") -> ElaborationError:
        """Report an error at a node; raise what is given back to leave off there."""
        self.collector.error(code, text, node.start, node.end, hint)
        return ElaborationError()

    def _implicit(self, name: ast.Name, scope: Scope) -> Vector:
        signal = self.b.signal(f"{scope.path}.{name.name}", 1, "net", name.start)
        signal.net = self.m.nettype
        self.b.implied.append((signal, self.scope))
        vector = Vector(signal, builtin("logic"), self.m.nettype, (), name.start)
        self.scope.entries[name.name] = vector
        self.shown.variables.append(Variable(name.name, signal, "wire", 0, 0))
        return vector

    def declare_parameter(self, item: ast.Parameter, scope: Scope) -> None:
        """A parameter with the value it has in this use of the module."""
        if item.name in scope.entries and not isinstance(scope.entries[item.name], Parameter):
            raise self.error("duplicate", f"`{item.name}` is declared twice", item, "keep one of the two declarations")
        x = self.x(scope)
        given = None
        if not item.local:
            given = self.b.defparams.pop(f"{scope.path}.{item.name}", None) or (
                self.overrides.get(item.name) if scope is self.scope else None
            )
        if given is None and item.value is None:
            scope.entries[item.name] = Broken(item.start)
            raise self.error("no-value", f"the parameter `{item.name}` is given by nobody", item, "give it a value")
        of = x.types.shape(item.type)
        shape = Shape(of.type, x.types.dims(item.dims) + of.dims)
        if shape.type.is_text or (shape.type.is_real and shape.dims):
            shape = Shape(kept(shape.type), shape.dims)
        if shape.type.kept or shape.is_aggregate or isinstance(item.value, ast.Pattern):
            scope.entries[item.name] = self._made_parameter(item, given, shape, x)
            return
        if given is not None:
            made = given
        else:
            assert item.value is not None
            made = self.parameter_value(x, item.value)
        if item.real:
            number = (
                made.number if made.number is not None else values.signed_value(made.value.one, made.value.width) * 1.0
            )
            made = Parameter(made.value, True, item.start, number)
        elif item.typed or item.type.signed:
            made = self._typed(item, made, shape)
        scope.entries[item.name] = Parameter(made.value, made.signed, item.start, made.number, made.shape)

    def _made_parameter(
        self, item: ast.Parameter, given: Parameter | None, shape: Shape, x: ExpressionLowering
    ) -> Parameter:
        """A parameter that is a string, a whole array or structure, or has a value that is written as one."""
        if given is not None and shape.type.is_text and not shape.dims and given.shape is None:
            letters = from_digits((given.value.one, given.value.zero))
            return Parameter(ir.Const(shape.width, *to_kept(letters)), False, item.start, None, shape)
        if given is not None and given.value.width == shape.width:
            return Parameter(given.value, shape.type.signed, item.start, None, shape)
        if item.value is None:
            raise self.error("no-value", f"the parameter `{item.name}` is given by nobody", item, "give it a value")
        value = self._evaluated(x, item.value, shape)
        return Parameter(value, shape.type.signed, item.start, None, shape)

    def _evaluated(self, x: ExpressionLowering, e: ast.Expr, shape: Shape) -> ir.Const:
        try:
            return ir.Const(shape.width, *evaluate(x.to_shape(e, shape)))
        except NotConstant:
            raise self.error(
                "not-constant", "a parameter's value must be a constant", e, "a number or a parameter"
            ) from None

    def parameter_value(self, x: ExpressionLowering, e: ast.Expr) -> Parameter:
        """A constant as a parameter's value."""
        if x.reals.is_real(e):
            try:
                number = evaluate_real(x.reals.lower(e))
            except NotConstant:
                raise self.error(
                    "not-constant", "a parameter's value must be a constant", e, "a number or a parameter"
                ) from None
            return Parameter(ir.Const(64, *values.word(round_half_away(number), 64)), True, e.start, number)
        if x.texts.is_text(e):
            shape = Shape(kept(builtin("string")))
            return Parameter(self._evaluated(x, e, shape), False, e.start, None, shape)
        const, signed = x.constant(e, "a parameter's value")
        return Parameter(const, signed, e.start)

    def _typed(self, item: ast.Parameter, made: Parameter, shape: Shape) -> Parameter:
        """A parameter that has a range or sign of its own (4.10.1)."""
        const = made.value
        if item.typed:
            width = shape.width
            word = (const.one, const.zero)
            word = (
                values.extend(word, const.width, width, made.signed)
                if width > const.width
                else values.select(word, const.width, 0, width)
            )
            const = ir.Const(width, *(values.v_two(word, width) if shape.type.two_state else word))
        own = shape if item.type.ranges or item.type.word not in WIDTHS else None
        return Parameter(const, shape.type.signed, item.start, None, own if item.typed else None)

    def range(self, r: ast.Range, scope: Scope) -> tuple[int, int, int]:
        """The ends of a range and its width, at most what a vector may have."""
        msb, lsb = self.x(scope).types.ends(r)
        return msb, lsb, abs(msb - lsb) + 1

    def take_in(self, item: ast.Import, scope: Scope) -> None:
        """What an `import` makes visible (1800 clause 26.3), and what an `export` gives on (26.6)."""
        if item.is_export and item.package == "*":
            for seen in scope.imports:
                scope.entries = {**seen.entries, **scope.entries}
            return
        package = self.b.package(item.package)
        if package is None:
            near = did_you_mean(item.package, self.b.packages) or "hand in the file with it too"
            raise self.error("no-package", f"there is no package `{item.package}`", item, near)
        if item.name == "*":
            if item.is_export:
                scope.entries = {**package.entries, **scope.entries}
            elif package not in scope.imports:
                scope.imports.append(package)
            return
        found = package.entries.get(item.name)
        if found is None:
            near = did_you_mean(item.name, package.entries)
            raise self.error("no-name", f"the package `{item.package}` has no `{item.name}`", item, near)
        known = scope.entries.get(item.name)
        if known is not None and known is not found:
            raise self.error("duplicate", f"the name `{item.name}` is taken already", item)
        scope.entries[item.name] = found

    def delays(self, given: list[ast.Expr], scope: Scope) -> Delays | None:
        """One to three delays in ticks (7.14); the turn-off delay is the least of two."""
        if not given:
            return None
        x = self.x(scope)
        tick, step = scope.times
        found: list[int] = []
        for e in given:
            if x.reals.is_real(e):
                made = self.parameter_value(x, e)
                found.append(round_half_away((made.number or 0.0) * tick / step) * step)
            else:
                found.append(max(0, x.integer(e, "a delay")) * tick)
        if len(found) == 1:
            found *= 3
        elif len(found) == 2:
            found.append(min(found))
        delays = found[0], found[1], found[2]
        return None if delays == (0, 0, 0) else delays

    @staticmethod
    def strengths(given: tuple[str, str] | None) -> tuple[int, int]:
        """Strengths of 0 and 1 as numbers (table 7-7), strong where none are given."""
        return (6, 6) if given is None else (_STRENGTH_LEVELS[given[0]], _STRENGTH_LEVELS[given[1]])

    def watches(self, terms: list[ast.EventTerm], x: ExpressionLowering) -> list[Watch]:
        """What an event control waits for; an expression gets a hidden net that follows it."""
        watches: list[Watch] = []
        for term in terms:
            edge: Literal["any", "pos", "neg"] = term.edge  # type: ignore[assignment]
            if term.only_if is not None:
                watches.append(Watch(self._arisen(term, x), "any", 0, 1))
                continue
            real = x.reals.is_real(term.expr)
            if real and edge != "any":
                raise self.error(
                    "real-edge",
                    "a real number has no edges (1364-2005 clause 4.8.1)",
                    term,
                    "wait for any change: `@(name)`",
                )
            lowered = x.reals.lower(term.expr) if real else x.self_determined(term.expr)
            signal, low = None, 0
            if isinstance(lowered, ir.Ref):
                signal = lowered.signal
            elif isinstance(lowered, ir.Slice) and isinstance(lowered.a, ir.Ref):
                signal, low = lowered.a.signal, lowered.low
            if signal is not None and signal.automatic:
                raise self.error("automatic-event", "a variable of an automatic task cannot be waited for", term)
            if signal is None or signal.element:
                signal = self.hidden(lowered, f"{x.scope.path}.@{term.start}", term.start, "event", x.scope.path)
                low = 0
            watches.append(Watch(signal, edge, low, 1 if edge != "any" else lowered.width))
        return watches

    def _arisen(self, term: ast.EventTerm, x: ExpressionLowering) -> Signal:
        """A hidden event: `term` came, and what stands behind its `iff` was true then (1800 clause 9.4.2.3)."""
        assert term.only_if is not None
        condition = x.truth(term.only_if)
        if any(signal.automatic for signal, _, _ in stretches_read(condition)):
            raise self.error("automatic-event", "a variable of an automatic task cannot be waited for", term)
        path = x.scope.path
        of = text_of(term.expr) if isinstance(term.expr, ast.Name | ast.Dotted) else str(term.start)
        event = self.b.signal(f"{path}.@{of} iff", 1, "variable", term.start)
        came = ir.If(term.start, condition, ir.Trigger(term.start, event), None)
        watches = self.watches([replace(term, only_if=None)], x)
        self.b.process(Process("always", came, watches, term.start, "always", path))
        return event

    def warn_of_deaf_calls(self, body: ir.Stmt, what: str, position: int) -> None:
        """A function that reads more than its arguments: that does not wake `@*` or an assignment (1364-2005 clause
        9.7.5, 1800 clause 9.2.2.2.2)."""
        seen = {signal.id for s in statements(body) for e in expressions(s) for signal, _, _ in stretches_read(e)}
        seen |= {t.signal.id for t in targets(body)}
        for function in functions_called_for_values(body):
            for signal in dict.fromkeys(s for s, _, _ in read_by_function(function) if s.id not in seen):
                seen.add(signal.id)
                if signal.initial is None or signal.id in self.b.variables or signal.kind == "net":
                    name = signal.name.rpartition(".")[2]
                    text = (
                        f"{what} does not wake for `{name}`, which `{function.name}` reads: only what stands here and"
                        " its arguments count"
                    )
                    self.collector.warning(
                        "sensitivity", text, position, None, f"give `{name}` to the function as an argument"
                    )

    def hidden(self, value: ir.Expr, name: str, position: int, origin: str, path: str) -> Signal:
        """A net without a name that follows an expression."""
        made = self.b.signal(name, value.width, "net", position)
        if isinstance(value, ir.Ref) and value.signal.real:
            made.real = True
        self.b.drive([ir.Target(made, 0, value.width)], value, position, origin, path)
        return made

    def follower(self, value: ir.Expr, s: ast.Hold, scope: Scope) -> Signal:
        """The net that an `assign` or `force` follows."""
        return self.hidden(value, f"{scope.path}.{s.kind}@{s.start}", s.start, s.kind, scope.path)

    def scratch(self, width: int, name: str, position: int) -> Signal:
        """A variable that no text names."""
        return self.b.signal(name, width, "variable", position)

    def counted(self, event: Signal, position: int, scope: Scope) -> tuple[Signal, Signal]:
        """A count of how often an event is to be triggered, and one that triggers it when it changes."""
        asked, told = (self.b.signal(f"{event.name} {name}", 32, "variable", position) for name in ("asked", "told"))
        asked.initial = told.initial = values.word(0, 32)
        trigger = ir.Trigger(position, event)
        self.b.process(Process("always", trigger, [Watch(told, "any", 0, 32)], position, "always", scope.path))
        return asked, told

    def callable(self, entry: FunctionEntry) -> ir.Function:
        """A function or task with its body."""
        return self.nested.function(self, entry)

    def block_scope(self, block: ast.Block, scope: Scope) -> Scope:
        """The scope of a block that was declared with its module."""
        known = self.b.blocks.get((id(block), id(scope)))
        if known is None:
            raise ElaborationError  # its declaration was reported
        return known

    def check_net(self, name: ast.Name | ast.Dotted, scope: Scope, by: str) -> None:
        """Only nets, and no inputs, are driven from inside."""
        self.x(scope).selects.check_view(name)
        entry = self.x(scope).find(name)
        shown = name.name if isinstance(name, ast.Name) else ".".join(name.parts)
        if isinstance(entry, Vector) and entry.kind in (
            _NEVER_DRIVEN_IN_SV if self.m.system_verilog else _NEVER_DRIVEN
        ):
            raise self.error(
                "reg-driven", f"`{shown}` is declared `{entry.kind}` and cannot be driven by {by}", name,
                "declare it as `wire`, or write it inside an `always` block",
            )  # fmt: skip
        if (
            entry is not None
            and entry is self.scope.entries.get(shown)
            and self.directions.get(shown, ("",))[0] == "in"
        ):
            raise self.error("input-driven", f"`{shown}` is an input and gets its value from outside", name)
