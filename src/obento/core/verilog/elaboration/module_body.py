"""One use of a module while it is elaborated: its names first, then what is made of them (clauses 4, 6, 12)."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.ir.design import Delays, Instance, Port, Process, ScopeOfNames, Signal, Variable, Watch
from obento.core.ir.drivers import expressions, functions_called_for_values, read_by_function, statements, stretches_read, targets
from obento.core.ir.evaluate import NotConstant, evaluate, evaluate_real, round_half_away
from obento.core.limits import LimitReached
from obento.core.suggest import did_you_mean
from obento.core.values import Word
from obento.core.verilog.elaboration import gates, generate, instances, processes
from obento.core.verilog.elaboration.functions import lower_function, register
from obento.core.verilog.lowering.cut_widths import warn_if_cut
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.lowering.statements import VARIABLES, names_written
from obento.core.verilog.model.builder import Builder, Overrides
from obento.core.verilog.model.scope import Broken, FunctionEntry, Genvar, Inside, Outside, Parameter, Scope, TypeName, Vector
from obento.core.verilog.model.wrong import Wrong
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.declarations import NET_TYPES
from obento.core.verilog.syntax.integers import TWO_STATE, WIDTHS

_STRENGTH_LEVELS = {"supply": 7, "strong": 6, "pull": 5, "weak": 3, "highz": 0}
_NEVER_DRIVEN = VARIABLES - {"logic", "bit"}
_NEVER_DRIVEN_IN_SV = frozenset(["function", "real", "realtime"])


def instantiate(
    builder: Builder, module: ast.Module, name: str, parent: Scope, overrides: Overrides, outside: dict[str, Outside], depth: int
) -> ModuleBody:
    """Declare one use of a module with all below it; its work is left in the builder."""
    builder.instances += 1
    if depth > builder.limits.instance_depth or builder.instances > builder.limits.instances:
        raise LimitReached(f"`{module.name}` is used too deep or too often", module.name_start, "does it use itself?")
    path = f"{parent.path}.{name}" if parent.path else name
    shown = ScopeOfNames(name, "module", path)
    scope = Scope(path, None, parent, shown)
    scope.module = module.name
    scope.times = builder.times(module)
    body = ModuleBody(builder, module, scope, overrides, outside, Instance(name, module.name, module.name_start), shown, depth)
    body.declare()
    return body


class ModuleBody:
    """One use of a module. `outside` gives the wires that ports may simply be part of; `joined` those that became so."""

    def __init__(
        self,
        builder: Builder,
        module: ast.Module,
        scope: Scope,
        overrides: Overrides,
        outside: dict[str, Outside],
        instance: Instance,
        shown: ScopeOfNames,
        depth: int,
    ) -> None:
        self.b = builder
        self.collector = builder.collector
        self.m = module
        self.scope = scope
        self.overrides = overrides
        self.outside = outside
        self.instance = instance
        self.shown = shown
        self.depth = depth
        self.joined: set[str] = set()
        self.directions: dict[str, tuple[str, ast.Declarator]] = {}
        self._generated: dict[int, int] = {}

    # In order.

    def declare(self) -> None:
        for item in self.m.items:
            if isinstance(item, ast.FunctionItem):
                self.b.guarded(lambda item=item: register(self, item, self.scope))  # type: ignore[misc]
        for item in self.m.items:
            if isinstance(item, ast.Parameter):
                self.b.guarded(lambda item=item: self.declare_parameter(item, self.scope))  # type: ignore[misc]
            elif isinstance(item, ast.TypeDefinition):
                self.b.guarded(lambda item=item: self._type_definition(item, self.scope))  # type: ignore[misc]
        for item in self.m.items:
            self.b.guarded(lambda item=item: self._note_direction(item))  # type: ignore[misc]
        self._ports_of_expressions()
        self.items(self.m.items, self.scope)
        self.joined |= {port for port, e in self.m.port_values.items() if isinstance(e, ast.Name) and e.name in self.joined}

    def items(self, items: list[ast.Item], scope: Scope) -> None:
        """Declare everything of one level, then what is below it; what uses it waits as work."""
        for item in items:
            self.b.guarded(lambda item=item: self._declare(item, scope))  # type: ignore[misc]
        for item in items:
            self.b.guarded(lambda item=item: self._elaborate(item, scope))  # type: ignore[misc]

    def x(self, scope: Scope, implicit: bool = False) -> ExpressionLowering:
        """Expressions in a scope; undeclared names become wires of one bit where `implicit` says so (4.5)."""
        lowering = ExpressionLowering(scope, self.collector, self.b.limits, lambda entry: lower_function(self, entry))
        if implicit and self.m.nettype != "none":
            lowering.implicit = lambda name: self._implicit(name, scope)
        return lowering

    def error(self, code: str, text: str, node: ast.Node, hint: str = "") -> Wrong:
        self.collector.error(code, text, node.start, node.end, hint)
        return Wrong()

    def _implicit(self, name: ast.Name, scope: Scope) -> Vector:
        signal = self.b.signal(f"{scope.path}.{name.name}", 1, "net", name.start)
        signal.net = self.m.nettype
        self.b.implied.append((signal, self.scope))
        vector = Vector(signal, 0, 0, False, self.m.nettype, [], name.start)
        self.scope.entries[name.name] = vector
        self.shown.variables.append(Variable(name.name, signal, "wire", 0, 0))
        return vector

    # Parameters and types.

    def declare_parameter(self, item: ast.Parameter, scope: Scope) -> None:
        """A parameter with the value it has in this use of the module."""
        if item.name in scope.entries and not isinstance(scope.entries[item.name], Parameter):
            raise self.error("duplicate", f"`{item.name}` is declared twice", item, "keep one of the two declarations")
        x = self.x(scope)
        given = None
        if not item.local:
            given = self.b.defparams.pop(f"{scope.path}.{item.name}", None) or (self.overrides.get(item.name) if scope is self.scope else None)
        made = given or self.parameter_value(x, item.value)
        if item.real:
            number = made.number if made.number is not None else values.signed_value(made.value.one, made.value.width) * 1.0
            made = Parameter(made.value, True, item.start, number)
        elif item.typed or item.signed:
            made = self._typed(item, made, scope)
        scope.entries[item.name] = Parameter(made.value, made.signed, item.start, made.number)

    def parameter_value(self, x: ExpressionLowering, e: ast.Expr) -> Parameter:
        """A constant as a parameter's value."""
        if x.reals.is_real(e):
            try:
                number = evaluate_real(x.reals.lower(e))
            except NotConstant:
                raise self.error("not-constant", "a parameter's value must be a constant", e, "a number or a parameter") from None
            return Parameter(ir.Const(64, *values.word(round_half_away(number), 64)), True, e.start, number)
        const, signed = x.constant(e, "a parameter's value")
        return Parameter(const, signed, e.start)

    def _typed(self, item: ast.Parameter, made: Parameter, scope: Scope) -> Parameter:
        """A parameter that has a range or sign of its own (4.10.1)."""
        const = made.value
        if item.typed:
            width = WIDTHS.get(item.kind, 1) if item.range is None else self.range(item.range, scope)[2]
            word = (const.one, const.zero)
            word = values.extend(word, const.width, width, made.signed) if width > const.width else values.select(word, const.width, 0, width)
            const = ir.Const(width, *(values.v_two(word, width) if item.kind in TWO_STATE else word))
        return Parameter(const, item.signed, item.start)

    def _type_definition(self, item: ast.TypeDefinition, scope: Scope) -> None:
        if item.name in scope.entries:
            return  # known since the parameters were looked at
        kind, signed, base = item.kind, item.signed, scope.find(item.kind)
        if isinstance(base, TypeName):
            if item.range is not None:
                raise self.error("not-yet", "an array of a named type is not read by this version", item.range, "write the type out")
            kind, signed, msb, lsb = base.kind, base.signed, base.msb, base.lsb
        elif item.range is not None:
            msb, lsb, _ = self.range(item.range, scope)
        else:
            msb, lsb = WIDTHS.get(kind, 1) - 1, 0
        made = scope.entries[item.name] = TypeName(item.name, kind, signed, msb, lsb, [c.name for c in item.constants])
        made.enum = made if item.is_enum else base.enum if isinstance(base, TypeName) else None
        number, width = 0, made.width
        for constant in item.constants:
            if constant.value is not None:
                number = self.x(scope).integer(constant.value, "a value of the enumeration")
            if constant.name in scope.entries:
                raise self.error("duplicate", f"the name `{constant.name}` is taken already", constant)
            scope.entries[constant.name] = Parameter(ir.Const(width, *values.word(number, width)), signed, constant.start, enum=made)
            number += 1

    def range(self, r: ast.Range, scope: Scope, what: str = "the end of a range", most: int = 0) -> tuple[int, int, int]:
        """The ends of a range and its width, at most `most` or what a vector may have."""
        most = most or self.b.limits.vector_bits
        x = self.x(scope)
        msb, lsb = x.integer(r.left, what), x.integer(r.right, what)
        width = abs(msb - lsb) + 1
        if width > most:
            raise self.error("too-wide", f"[{msb}:{lsb}] is a range of {width}; at most {most} can be taken", r)
        return msb, lsb, width

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
        return (6, 6) if given is None else (_STRENGTH_LEVELS[given[0]], _STRENGTH_LEVELS[given[1]])

    # Declarations.

    def _note_direction(self, item: ast.Item) -> None:
        if not isinstance(item, ast.Declaration) or not item.direction:
            return
        inside = [n.name for e in self.m.port_values.values() for n in names_written(e) if isinstance(n, ast.Name)]
        for declarator in item.names:
            if declarator.name not in self.m.ports and declarator.name not in inside:
                raise self.error(
                    "not-a-port",
                    f"`{declarator.name}` is declared as a port but missing in the module's list of ports",
                    declarator,
                    did_you_mean(declarator.name, self.m.ports),
                )
            self.directions[declarator.name] = (item.direction, declarator)

    def _ports_of_expressions(self) -> None:
        """Ports written `.name(inner)`: a plain inner name simply goes by another name outside (12.3.3)."""
        for port, e in self.m.port_values.items():
            names = names_written(e)
            first = names[0].name if names and isinstance(names[0], ast.Name) else ""
            if first in self.directions:
                self.directions.setdefault(port, self.directions[first])
            if isinstance(e, ast.Name) and port in self.outside:
                self.outside[e.name] = self.outside[port]

    def _declare(self, item: ast.Item, scope: Scope) -> None:
        match item:
            case ast.Parameter() if scope is not self.scope:
                self.declare_parameter(item, scope)
            case ast.TypeDefinition():
                self._type_definition(item, scope)
            case ast.Declaration() if item.kind == "genvar":
                for d in item.names:
                    scope.entries.setdefault(d.name, Genvar(d.start))
            case ast.Declaration():
                self.declaration(item, scope)
            case ast.FunctionItem() if scope is not self.scope:
                register(self, item, scope)
            case ast.Process():
                self.named_blocks(item.body, scope)
            case ast.DefParam():
                made = self.parameter_value(self.x(scope), item.value)
                head = "" if item.path[0] == self.scope.path.split(".")[0] and item.path[0] not in scope.entries else f"{scope.path}."
                self.b.defparams[head + ".".join(item.path)] = made
            case ast.Instance() | ast.GateInstance() if item.name:
                if item.name in scope.entries:
                    raise self.error("duplicate", f"the name `{item.name}` is taken already", item, "every instance has its own name")
                scope.entries[item.name] = Inside(None, item.start)
            case _:
                pass

    def declaration(self, item: ast.Declaration, scope: Scope) -> None:
        """Nets or variables."""
        try:
            self._declared(item, scope)
        finally:
            for d in item.names:
                scope.entries.setdefault(d.name, Broken(d.start))

    def _declared(self, item: ast.Declaration, scope: Scope) -> None:
        kind, signed = item.kind, item.signed
        named = scope.find(kind) if kind and kind not in NET_TYPES | VARIABLES | {"event"} else None
        enum = named.enum if isinstance(named, TypeName) else None
        if isinstance(named, TypeName):
            kind, signed, msb, lsb, width = named.kind, named.signed, named.msb, named.lsb, named.width
        elif item.range is not None:
            msb, lsb, width = self.range(item.range, scope)
        else:
            width = WIDTHS.get(kind, 1)
            msb, lsb = width - 1, 0
        for d in item.names:
            self.b.guarded(lambda d=d: self._declarator(item, d, kind, signed, (msb, lsb, width), scope, enum))  # type: ignore[misc]

    def _declarator(
        self, item: ast.Declaration, d: ast.Declarator, kind: str, signed: bool, span: tuple[int, int, int], scope: Scope, enum: TypeName | None
    ) -> None:
        msb, lsb, width = span
        known = scope.entries.get(d.name)
        if known is not None:
            if isinstance(known, Vector) and self._completes(known, item, d):
                self._complete(known, item, d, width, scope)
                return
            raise self.error("duplicate", f"`{d.name}` is declared twice", d, "keep one of the two declarations")
        dims = [self.range(r, scope, most=self.b.limits.memory_bits)[:2] for r in d.dims]
        total = width
        for left, right in dims:
            total *= abs(left - right) + 1
        if total > (self.b.limits.memory_bits if dims else self.b.limits.vector_bits):
            raise self.error("too-wide", f"`{d.name}` has {total} bits, more than can be taken", d)
        vector = self._join(item, d, kind or "wire", signed, span, dims, scope)
        if vector is None:
            vector = self._make(item, d, kind or "wire", signed, span, dims, scope)
        vector.signal.position = vector.signal.position or d.start
        scope.entries[d.name] = vector
        vector.enum = enum
        if scope.shown is not None:
            scope.shown.variables.append(Variable(d.name, vector.signal, vector.kind, msb, lsb, vector.at))
        if kind in ("supply0", "supply1"):
            full = values.ones(total)
            value = ir.Const(total, full, 0) if kind == "supply1" else ir.Const(total, 0, full)
            target = [ir.Target(vector.signal, vector.at, total)]
            self.b.later(lambda: self.b.drive(target, value, d.start, "supply", scope.path, None, (7, 7)))
        self._start_value(vector, d, scope)

    def _join(
        self, item: ast.Declaration, d: ast.Declarator, kind: str, signed: bool, span: tuple[int, int, int], dims: list[tuple[int, int]], scope: Scope
    ) -> Vector | None:
        """A port as part of the wire outside, where it is nothing more than that."""
        outside = self.outside.get(d.name) if scope is self.scope and item.direction and not dims else None
        place = outside.place(span[2]) if outside is not None and kind in NET_TYPES | {"logic"} else None
        if outside is None or place is None:
            return None
        if kind not in ("wire", "logic") and outside.signal.net == "wire":
            outside.signal.net = kind
        self.joined.add(d.name)
        return Vector(outside.signal, span[0], span[1], signed, kind, [], d.start, place)

    def _make(
        self, item: ast.Declaration, d: ast.Declarator, kind: str, signed: bool, span: tuple[int, int, int], dims: list[tuple[int, int]], scope: Scope
    ) -> Vector:
        msb, lsb, width = span
        total = Vector(Signal(0, "", 0, "net"), msb, lsb, signed, kind, dims).total
        flavour: Literal["net", "variable"] = "net" if kind in NET_TYPES else "variable"
        if scope.automatic and dims:
            raise self.error("automatic-array", f"`{d.name}` is an array in an automatic task, which cannot be run", d, "declare it in the module")
        signal = self.b.signal(f"{scope.path}.{d.name}", total, flavour, d.start, element=width if dims else 0)
        signal.real = kind in ("real", "realtime")
        signal.automatic = scope.automatic
        if flavour == "net":
            signal.net = kind
            if d.value is None:
                signal.delay = self.delays(item.delays, scope)
        if kind in TWO_STATE:
            signal.two_state, signal.initial = True, values.word(0, total)
        if flavour == "variable" and self.m.system_verilog:
            self.b.variables.add(signal.id)
        if item.direction == "in" and kind == "logic":
            signal.kind = "net"
        return Vector(signal, msb, lsb, signed, kind, list(dims), d.start)

    def _completes(self, known: Vector, item: ast.Declaration, d: ast.Declarator) -> bool:
        is_port = d.name in self.directions
        return is_port and not item.direction and known.kind == "wire" and not d.dims

    def _complete(self, known: Vector, item: ast.Declaration, d: ast.Declarator, width: int, scope: Scope) -> None:
        """`output y; reg y;`: two halves of one declaration."""
        if item.range is not None and known.width != width and known.width != 1:
            raise self.error("range-differs", f"`{d.name}` is declared with two different ranges", d)
        if item.range is not None and known.width == 1 and width != 1:
            raise self.error("range-differs", f"`{d.name}` has a range here but none in its port declaration", d, "write the same range in both")
        if item.kind not in NET_TYPES:
            if self.directions[d.name][0] == "in" and item.kind != "logic":
                raise self.error("input-reg", f"input `{d.name}` cannot be `{item.kind}`", d, "an input is a wire")
            if item.kind in ("integer", "time", "real") and known.width != width:
                raise self.error("range-differs", f"`{d.name}` is one bit as a port and `{item.kind}` here", d, "declare the port `output integer`")
            known.kind = item.kind
            known.signal.kind = "variable"
            if item.kind in TWO_STATE:
                known.signal.two_state, known.signal.initial = True, values.word(0, known.signal.width)
        else:
            known.signal.net = item.kind
        known.signed = known.signed or item.signed
        self._start_value(known, d, scope)

    def _start_value(self, vector: Vector, d: ast.Declarator, scope: Scope) -> None:
        if d.value is None or vector.signal.kind == "net" or scope.automatic:
            return  # a net's value is a continuous assignment, built later
        x = self.x(scope)
        if vector.dims:
            raise self.error(
                "array-value", f"`{d.name}` is an array and cannot be given a value here", d.value, "set its elements in an `initial` block"
            )
        try:
            if vector.is_real:
                vector.signal.number = evaluate_real(x.reals.lower(d.value))
            else:
                x.check_enum(vector, d.value)
                word = evaluate(ir.settled([ir.Target(vector.signal, 0, vector.signal.width)], x.to_width(d.value, vector.signal.width)))
                if self.m.system_verilog:
                    vector.signal.initial = word  # 1800 clause 6.8: there before anything runs
                else:
                    self._as_initial(vector.signal, word, d.start, scope)
        except NotConstant:
            raise self.error(
                "start-value", f"the start value of `{d.name}` must be a constant", d.value, "use `assign` for a value that follows others"
            ) from None

    def _as_initial(self, signal: Signal, word: Word, position: int, scope: Scope) -> None:
        """A start value as if an `initial` gave it (1364-2005 clause 6.2.1): whoever waits for the signal sees it change."""
        body = ir.Assign(position, [ir.Target(signal, 0, signal.width)], ir.Const(signal.width, *word))
        self.b.process(Process("initial", body, [], position, "start", scope.path))

    def named_blocks(self, s: ast.Stmt | None, scope: Scope) -> None:
        """Declare the blocks with names or declarations inside a statement, so that they can be named from anywhere."""
        stack: list[tuple[ast.Stmt | None, Scope]] = [(s, scope)]
        while stack:
            s, inside = stack.pop()
            match s:
                case ast.Block():
                    if s.name or s.declarations:
                        inside = self._named_block(s, inside)
                    stack += [(inner, inside) for inner in reversed(s.body)]
                case ast.If():
                    stack += [(s.then, inside), (s.other, inside)]
                case ast.Case():
                    stack += [(arm.body, inside) for arm in s.items]
                    stack.append((s.default, inside))
                case ast.For() | ast.While() | ast.RepeatTimes() | ast.Timed():
                    stack.append((s.body, inside))
                case _:
                    pass

    def _named_block(self, block: ast.Block, scope: Scope) -> Scope:
        name = block.name or f"block{block.start}"
        path = f"{scope.path}.{name}"
        shown = ScopeOfNames(name, "fork" if block.parallel else "begin", path)
        inner = Scope(path, scope, None, shown if block.name else None)
        if block.name:
            if block.name in scope.entries:
                raise self.error("duplicate", f"the name `{block.name}` is taken already", block, "give the block another name")
            scope.entries[block.name] = Inside(inner, block.start, ir.Label(name))
            if scope.shown is not None:
                scope.shown.children.append(shown)
        self.b.blocks[id(block), id(scope)] = inner
        for item in block.declarations:
            if isinstance(item, ast.Parameter):
                self.declare_parameter(item, inner)
            else:
                self._declare(item, inner)
        return inner

    # What statements ask of the module around them.

    def block_scope(self, block: ast.Block, scope: Scope) -> Scope:
        known = self.b.blocks.get((id(block), id(scope)))
        if known is None:
            raise Wrong  # its declaration was reported
        return known

    def watches(self, terms: list[ast.EventTerm], x: ExpressionLowering) -> list[Watch]:
        """What an event control waits for; an expression gets a hidden net that follows it."""
        watches: list[Watch] = []
        for term in terms:
            edge: Literal["any", "pos", "neg"] = term.edge  # type: ignore[assignment]
            real = x.reals.is_real(term.expr)
            if real and edge != "any":
                raise self.error("real-edge", "a real number has no edges (1364-2005 clause 4.8.1)", term, "wait for any change: `@(name)`")
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

    def warn_of_deaf_calls(self, body: ir.Stmt, what: str, position: int) -> None:
        """A function that reads more than its arguments: that does not wake `@*` or an assignment (1364-2005 clause 9.7.5, 1800 clause 9.2.2.2.2)."""
        seen = {signal.id for s in statements(body) for e in expressions(s) for signal, _, _ in stretches_read(e)}
        seen |= {t.signal.id for t in targets(body)}
        for function in functions_called_for_values(body):
            for signal in dict.fromkeys(s for s, _, _ in read_by_function(function) if s.id not in seen):
                seen.add(signal.id)
                if signal.initial is None or signal.id in self.b.variables or signal.kind == "net":
                    name = signal.name.rpartition(".")[2]
                    text = f"{what} does not wake for `{name}`, which `{function.name}` reads: only what stands here and its arguments count"
                    self.collector.warning("sensitivity", text, position, None, f"give `{name}` to the function as an argument")

    def hidden(self, value: ir.Expr, name: str, position: int, origin: str, path: str) -> Signal:
        """A net without a name that follows an expression."""
        made = self.b.signal(name, value.width, "net", position)
        if isinstance(value, ir.Ref) and value.signal.real:
            made.real = True
        self.b.drive([ir.Target(made, 0, value.width)], value, position, origin, path)
        return made

    def follower(self, value: ir.Expr, s: ast.Hold, scope: Scope) -> Signal:
        return self.hidden(value, f"{scope.path}.{s.kind}@{s.start}", s.start, s.kind, scope.path)

    def scratch(self, width: int, name: str, position: int) -> Signal:
        return self.b.signal(name, width, "variable", position)

    def callable(self, entry: FunctionEntry) -> ir.Function:
        return lower_function(self, entry)

    def child(self, module: ast.Module, name: str, scope: Scope, overrides: Overrides, outside: dict[str, Outside]) -> ModuleBody:
        """Declare an instance in this one."""
        body = instantiate(self.b, module, name, scope, overrides, outside, self.depth + 1)
        self.instance.children.append(body.instance)
        if scope.shown is not None:
            scope.shown.children.append(body.shown)
        return body

    # Ports as the outside sees them.

    def ports(self) -> list[Port]:
        ports: list[Port] = []
        for name, (start, end) in zip(self.m.ports, self.m.port_spans, strict=True):
            if any(p.name == name for p in ports):
                self.collector.error("duplicate", f"port `{name}` is listed twice", start, end)
                raise Wrong
            ports.append(self._port(name, start, end))
        return ports

    def _port(self, name: str, start: int, end: int) -> Port:
        value = self.m.port_values.get(name)
        inner = value.name if isinstance(value, ast.Name) else name
        entry = self.scope.entries.get(inner)
        if inner not in self.directions or (not isinstance(entry, Vector) and value is None):
            self.collector.error("port-undeclared", f"port `{name}` has no `input` or `output` declaration", start, end, "declare it in the module")
            raise Wrong
        direction = self.directions[inner][0]
        if not isinstance(entry, Vector):
            assert value is not None
            return Port(name, direction, self._port_signal(name, direction, value), False, start)  # type: ignore[arg-type]
        if direction == "in" and entry.signal.two_state and self.m.system_verilog:
            return Port(name, "in", self._two_state_input(name, entry), entry.signed, start)
        if direction == "in" and entry.kind not in NET_TYPES | {"logic"}:
            self.collector.error("input-reg", f"input `{name}` cannot be `{entry.kind}`", start, end, "an input is a wire")
            raise Wrong
        return Port(name, direction, entry.signal, entry.signed, start)  # type: ignore[arg-type]

    def _two_state_input(self, name: str, entry: Vector) -> Signal:
        """What an input of a two-state type is given: it may be unknown outside, and is 0 then inside (1800 clause 6.3.1)."""
        signal = self.b.signal(f"{self.scope.path}.{name} given", entry.width, "net", entry.start)
        target = [ir.Target(entry.signal, 0, entry.width)]
        self.b.drive(target, ir.settled(target, ir.Ref(entry.width, signal)), entry.start, "port", self.scope.path)
        return signal

    def _port_signal(self, name: str, direction: str, value: ast.Expr) -> Signal:
        """A port that stands for parts of inner nets."""
        x = self.x(self.scope)
        inside = x.self_determined(value)
        signal = self.b.signal(f"{self.scope.path}.{name}", inside.width, "net", value.start)
        if direction == "in":
            self.b.drive(x.targets(value), ir.Ref(inside.width, signal), value.start, "port", self.scope.path)
        else:
            self.b.drive([ir.Target(signal, 0, inside.width)], inside, value.start, "port", self.scope.path)
        return signal

    # What is made of the names.

    def _elaborate(self, item: ast.Item, scope: Scope) -> None:
        later: Callable[[], None] | None = None
        match item:
            case ast.ContinuousAssign():
                later = lambda: self._continuous(item, scope)  # noqa: E731
            case ast.Declaration():
                self._net_values(item, scope)
            case ast.GateInstance():
                later = lambda: gates.build(self, item, scope)  # noqa: E731
            case ast.Instance():
                instances.build(self, item, scope)
            case ast.Process():
                later = lambda: processes.build(self, item, scope)  # noqa: E731
            case ast.FunctionItem():
                entry = scope.entries.get(item.name)
                if isinstance(entry, FunctionEntry):
                    later = lambda: self._function(entry)  # noqa: E731
            case ast.GenerateFor() | ast.GenerateIf() | ast.GenerateCase() | ast.GenerateBlock():
                number = self._generated[id(scope)] = self._generated.get(id(scope), 0) + 1
                generate.build(self, item, scope, f"genblk{number}")
            case _:
                pass
        if later is not None:
            self.b.later(later)

    def _function(self, entry: FunctionEntry) -> None:
        self.callable(entry)

    def _net_values(self, item: ast.Declaration, scope: Scope) -> None:
        for d in item.names:
            entry = scope.entries.get(d.name)
            if d.value is not None and isinstance(entry, Vector) and entry.signal.kind == "net":
                name = ast.Name(d.start, d.start + len(d.name), d.name)
                made = ast.ContinuousAssign(d.start, d.end, name, d.value, item.delays, item.strengths)
                self.b.later(lambda made=made: self._continuous(made, scope))  # type: ignore[misc]

    def _continuous(self, item: ast.ContinuousAssign, scope: Scope) -> None:
        x = self.x(scope, implicit=True)
        written = x.targets(item.target)
        x.implicit = None
        for name in names_written(item.target):
            self.check_net(name, scope, "`assign`")
        width = sum(t.width for t in written)
        warn_if_cut(x, item.value, width, item.target.start)
        x.check_enum(x.whole_of(item.target), item.value)
        value = ir.settled(written, x.to_width(item.value, width))
        self.warn_of_deaf_calls(ir.Assign(item.start, written, value), "this assignment", item.start)
        delay, strengths = self.delays(item.delays, scope), self.strengths(item.strengths)
        self.b.drive(written, value, item.start, "assign", scope.path, delay, strengths)

    def check_net(self, name: ast.Name | ast.Dotted, scope: Scope, by: str) -> None:
        """Only nets, and no inputs, are driven from inside."""
        entry = self.x(scope).find(name)
        shown = name.name if isinstance(name, ast.Name) else ".".join(name.parts)
        if isinstance(entry, Vector) and entry.kind in (_NEVER_DRIVEN_IN_SV if self.m.system_verilog else _NEVER_DRIVEN):
            raise self.error(
                "reg-driven", f"`{shown}` is declared `{entry.kind}` and cannot be driven by {by}", name,
                "declare it as `wire`, or write it inside an `always` block",
            )  # fmt: skip
        if entry is not None and entry is self.scope.entries.get(shown) and self.directions.get(shown, ("",))[0] == "in":
            raise self.error("input-driven", f"`{shown}` is an input and gets its value from outside", name)
