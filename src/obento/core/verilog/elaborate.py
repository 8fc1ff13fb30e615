"""Modules to a Design: hierarchy, parameters, nets, gates, processes (IEEE 1364-2005 clauses 4, 6, 7 and 12)."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Literal

from obento.core import values
from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Instance, Port, Process, Signal, Watch
from obento.core.ir.drivers import body_watches, statements, stretches_read, targets, watches_of
from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.ir.resolve import resolve_drivers
from obento.core.limits import LimitReached, Limits
from obento.core.suggest import did_you_mean
from obento.core.verilog import ast
from obento.core.verilog.lower_expressions import ExpressionLowering, Wrong
from obento.core.verilog.lower_statements import StatementLowering, names_written
from obento.core.verilog.parser import NET_TYPES
from obento.core.verilog.scope import Block, FunctionEntry, Parameter, Scope, Vector

_GATE_OPS = {"and": "and", "nand": "and", "or": "or", "nor": "or", "xor": "xor", "xnor": "xor"}
_INVERTING = frozenset(["nand", "nor", "xnor", "not", "notif0", "notif1"])
_TRISTATE = {"bufif0": 0, "bufif1": 1, "notif0": 0, "notif1": 1}
_PLAIN_NETS = frozenset(["wire", "tri", "uwire", ""])

Overrides = dict[str, tuple[ir.Const, bool]]


def elaborate(modules: Mapping[str, ast.Module], unit: str, collector: Collector, limits: Limits) -> Design | None:
    """The Design of one module with all it uses; None when something is wrong with it (reported)."""
    errors = collector.errors
    design = Design(unit, "verilog")
    builder = _Builder(modules, design, collector, limits)
    try:
        design.root, design.ports = builder.module(modules[unit], unit, unit, {}, {}, 0)
    except Wrong:
        return None
    except LimitReached as limit:
        collector.error("limit", limit.text, limit.position, None, limit.hint)
        return None
    if collector.errors > errors:
        return None
    resolve_drivers(design, lambda signal, a, b: _two_drivers(collector, signal, a, b))
    return design


def _two_drivers(collector: Collector, signal: Signal, first: Process, second: Process) -> None:
    del first
    collector.warning(
        "two-drivers",
        f"`{signal.name.rpartition('.')[2]}` is driven from two places: where they disagree it is x",
        second.position,
        None,
        "a wire gets its value from one place",
    )


class _Builder:
    """Builds one Design out of many modules."""

    def __init__(self, modules: Mapping[str, ast.Module], design: Design, collector: Collector, limits: Limits) -> None:
        self.modules = modules
        self.design = design
        self.collector = collector
        self.limits = limits
        self.instances = 0

    def signal(self, name: str, width: int, kind: Literal["net", "variable"], position: int, initial: values.Word | None = None) -> Signal:
        if self.design.bits + width > self.limits.signal_bits:
            raise LimitReached(f"`{name}` makes the design larger than can be run", position)
        return self.design.add_signal(name, width, kind, position, initial)

    def process(self, process: Process) -> None:
        if len(self.design.processes) >= self.limits.processes:
            raise LimitReached("the design has more parts than can be run", process.position)
        self.design.processes.append(process)

    def drive(self, target: list[ir.Target], value: ir.Expr, position: int, origin: str, path: str) -> None:
        """A continuous assignment."""
        watches = watches_of(stretches_read(value))
        self.process(Process("continuous", ir.Assign(position, target, value), watches, position, origin, path))

    def module(
        self, module: ast.Module, name: str, path: str, overrides: Overrides, aliases: dict[str, Signal], depth: int
    ) -> tuple[Instance, list[Port]]:
        """Build one use of a module. `aliases` gives ports that are the same wire as one outside."""
        self.instances += 1
        if depth > self.limits.instance_depth or self.instances > self.limits.instances:
            raise LimitReached(f"`{module.name}` is used too deep or too often", module.name_start, "does it use itself?")
        instance = Instance(name, module.name, module.name_start)
        body = _ModuleBody(self, module, Scope(path), overrides, aliases, instance, depth)
        return instance, body.build()


class _ModuleBody:
    """One use of a module while it is built."""

    def __init__(
        self,
        builder: _Builder,
        module: ast.Module,
        scope: Scope,
        overrides: Overrides,
        aliases: dict[str, Signal],
        instance: Instance,
        depth: int,
    ) -> None:
        self.b = builder
        self.collector = builder.collector
        self.m = module
        self.scope = scope
        self.overrides = overrides
        self.aliases = aliases
        self.instance = instance
        self.depth = depth
        self.directions: dict[str, tuple[str, ast.Declarator]] = {}
        self.wrong = False

    def build(self) -> list[Port]:
        self._parameters()
        self._guarded(self.m.items, self._note_direction, self.scope)
        self._items(self.m.items, self.scope)
        if self.wrong:
            raise Wrong
        return self._ports()

    def _items(self, items: list[ast.Item], scope: Scope) -> None:
        """Declare everything of one level, then build it."""
        self._guarded(items, self._declare, scope)
        self._guarded(items, self._build, scope)

    def _guarded(self, items: Iterable[ast.Item], action: object, scope: Scope) -> None:
        """Do `action` for each item; a wrong one does not stop the others from being looked at."""
        for item in items:
            try:
                action(item, scope)  # type: ignore[operator]
            except Wrong:
                self.wrong = True

    def _x(self, scope: Scope) -> ExpressionLowering:
        return ExpressionLowering(scope, self.collector, self.b.limits, self._lower_function)

    def _error(self, code: str, text: str, node: ast.Node, hint: str = "") -> Wrong:
        self.collector.error(code, text, node.start, node.end, hint)
        return Wrong()

    # Parameters and declarations.

    def _parameters(self) -> None:
        for item in self.m.items:
            if isinstance(item, ast.Parameter):
                try:
                    self._parameter(item, self.scope)
                except Wrong:
                    self.wrong = True

    def _parameter(self, item: ast.Parameter, scope: Scope) -> None:
        x = self._x(scope)
        given = None if item.local or scope is not self.scope else self.overrides.get(item.name)
        const, signed = given or x.constant(item.value, "a parameter's value")
        if item.typed:
            width = 32 if item.range is None else self._range(item.range, scope)[2]
            one, zero = values.extend((const.one, const.zero), const.width, width, signed) if width > const.width else (
                const.one & values.ones(width), const.zero & values.ones(width),
            )  # fmt: skip
            const, signed = ir.Const(width, one, zero), item.signed
        elif item.signed:
            signed = True
        scope.entries[item.name] = Parameter(const, signed, item.start)

    def _range(self, r: ast.Range, scope: Scope) -> tuple[int, int, int]:
        """The ends of a range and its width in bits."""
        x = self._x(scope)
        msb, lsb = x.integer(r.left, "the end of a range"), x.integer(r.right, "the end of a range")
        width = abs(msb - lsb) + 1
        if width > self.b.limits.vector_bits:
            raise self._error("too-wide", f"[{msb}:{lsb}] is {width} bits wide; at most {self.b.limits.vector_bits} can be taken", r)
        return msb, lsb, width

    def _note_direction(self, item: ast.Item, scope: Scope) -> None:
        if not isinstance(item, ast.Declaration) or not item.direction:
            return
        for declarator in item.names:
            if declarator.name not in self.m.ports:
                raise self._error(
                    "not-a-port",
                    f"`{declarator.name}` is declared as a port but missing in the module's list of ports",
                    declarator,
                    did_you_mean(declarator.name, self.m.ports),
                )
            self.directions[declarator.name] = (item.direction, declarator)

    def _declare(self, item: ast.Item, scope: Scope) -> None:
        match item:
            case ast.Parameter() if scope is not self.scope:
                self._parameter(item, scope)
            case ast.Declaration() if item.kind != "genvar":
                self._declaration(item, scope)
            case ast.FunctionItem():
                scope.entries[item.name] = FunctionEntry(item, scope)
            case ast.Instance():
                self._claim(item.name, item, scope)
            case ast.GateInstance() if item.name:
                self._claim(item.name, item, scope)
            case _:
                pass

    def _claim(self, name: str, item: ast.Item, scope: Scope) -> None:
        if name in scope.entries:
            raise self._error("duplicate", f"the name `{name}` is taken already", item, "every instance has its own name")
        scope.entries[name] = Block(item.start)

    def _declaration(self, item: ast.Declaration, scope: Scope) -> None:
        if item.kind in ("real", "realtime", "event"):
            raise self._error("not-yet", f"`{item.kind}` is not run in a check by this version", item)
        if item.kind in ("wand", "wor", "triand", "trior", "tri0", "tri1", "trireg"):
            raise self._error("not-yet", f"`{item.kind}` nets are not run by this version", item)
        if item.range is not None:
            msb, lsb, width = self._range(item.range, scope)
        else:
            msb = {"integer": 31, "time": 63}.get(item.kind, 0)
            lsb, width = 0, msb + 1
        for declarator in item.names:
            self._declarator(item, declarator, msb, lsb, width, scope)

    def _declarator(self, item: ast.Declaration, d: ast.Declarator, msb: int, lsb: int, width: int, scope: Scope) -> None:
        kind = item.kind or "wire"
        known = scope.entries.get(d.name)
        if known is not None:
            if isinstance(known, Vector) and self._completes(known, item, d):
                # `output y; reg y;`: two halves of one declaration
                if item.range is not None and known.width != width and known.width != 1:
                    raise self._error("range-differs", f"`{d.name}` is declared with two different ranges", d)
                if item.range is not None and known.width == 1 and width != 1:
                    raise self._error(
                        "range-differs", f"`{d.name}` has a range here but none in its port declaration", d,
                        "write the same range in both",
                    )  # fmt: skip
                if item.kind in ("reg", "logic", "integer"):
                    known.kind = item.kind
                    known.signal.kind = "variable"
                known.signed = known.signed or item.signed
                self._start_value(known, d, scope)
                return
            raise self._error("duplicate", f"`{d.name}` is declared twice", d, "keep one of the two declarations")
        dims = [self._range(r, scope)[:2] for r in d.dims]
        total = width
        for left, right in dims:
            total *= abs(left - right) + 1
        if total > self.b.limits.vector_bits:
            raise self._error("too-wide", f"`{d.name}` has {total} bits, more than can be taken", d)
        is_net = kind in NET_TYPES
        signal = self.aliases.get(d.name) if scope is self.scope and item.direction else None
        if signal is None:
            signal = self.b.signal(f"{scope.path}.{d.name}", total, "net" if is_net else "variable", d.start)
        vector = Vector(signal, msb, lsb, item.signed, kind, list(dims), d.start)
        scope.entries[d.name] = vector
        if kind in ("supply0", "supply1"):
            full = values.ones(total)
            value = ir.Const(total, full, 0) if kind == "supply1" else ir.Const(total, 0, full)
            self.b.drive([ir.Target(signal, 0, total)], value, d.start, "supply", scope.path)
        self._start_value(vector, d, scope)

    def _completes(self, known: Vector, item: ast.Declaration, d: ast.Declarator) -> bool:
        is_port = d.name in self.directions
        return is_port and not item.direction and known.kind == "wire" and not d.dims

    def _start_value(self, vector: Vector, d: ast.Declarator, scope: Scope) -> None:
        if d.value is None or vector.signal.kind == "net":
            return  # a net's value is a continuous assignment, built later
        x = self._x(scope)
        lowered = x.to_width(d.value, vector.signal.width)
        try:
            vector.signal.initial = evaluate(lowered)
        except NotConstant:
            raise self._error(
                "start-value", f"the start value of `{d.name}` must be a constant", d.value, "use `assign` for a value that follows others"
            ) from None

    def _ports(self) -> list[Port]:
        ports: list[Port] = []
        for name, (start, end) in zip(self.m.ports, self.m.port_spans, strict=True):
            entry = self.scope.entries.get(name)
            if name not in self.directions or not isinstance(entry, Vector):
                self.collector.error(
                    "port-undeclared", f"port `{name}` has no `input` or `output` declaration", start, end, "declare it in the module"
                )
                raise Wrong
            direction = self.directions[name][0]
            if any(p.name == name for p in ports):
                self.collector.error("duplicate", f"port `{name}` is listed twice", start, end)
                raise Wrong
            if direction == "in" and entry.kind not in _PLAIN_NETS | {"logic"}:
                self.collector.error("input-reg", f"input `{name}` cannot be `{entry.kind}`", start, end, "an input is a wire")
                raise Wrong
            ports.append(Port(name, direction, entry.signal, entry.signed, start))  # type: ignore[arg-type]
        return ports

    # Items.

    def _build(self, item: ast.Item, scope: Scope) -> None:
        match item:
            case ast.ContinuousAssign():
                self._assign(item.target, item.value, item, scope)
            case ast.Declaration():
                for d in item.names:
                    entry = scope.entries.get(d.name)
                    if d.value is not None and isinstance(entry, Vector) and entry.signal.kind == "net":
                        self._assign(ast.Name(d.start, d.start + len(d.name), d.name), d.value, d, scope)
            case ast.GateInstance():
                self._gate(item, scope)
            case ast.Instance():
                self._instance(item, scope)
            case ast.Process():
                self._process(item, scope)
            case ast.FunctionItem() if not item.task:
                entry = scope.entries.get(item.name)
                if isinstance(entry, FunctionEntry):
                    self._lower_function(entry)
            case ast.GenerateFor():
                self._generate_for(item, scope)
            case ast.GenerateIf():
                chosen = item.then if self._x(scope).integer(item.cond, "a generate condition") else item.other
                self._generate_block(chosen, scope, "")
            case ast.GenerateCase():
                self._generate_case(item, scope)
            case ast.GenerateBlock():
                self._generate_block(item, scope, "")
            case ast.DefParam():
                raise self._error("not-yet", "`defparam` is not read by this version", item, "use `#(...)` at the instance")
            case _:
                pass

    def _implicit(self, scope: Scope) -> object:
        """Makes undeclared names one-bit wires, where the standard does so (4.5)."""

        def make(name: ast.Name) -> Vector | None:
            if not self.m.implicit_nets:
                return None
            near = did_you_mean(name.name, self.scope.all_names())
            if near:
                self.collector.warning(
                    "implicit-wire", f"`{name.name}` is not declared and becomes a one-bit wire of its own", name.start, name.end, near
                )
            signal = self.b.signal(f"{scope.path}.{name.name}", 1, "net", name.start)
            vector = Vector(signal, 0, 0, False, "wire", [], name.start)
            self.scope.entries[name.name] = vector
            return vector

        return make

    def _assign(self, target: ast.Expr, value: ast.Expr, item: ast.Node, scope: Scope) -> None:
        x = self._x(scope)
        x.implicit = self._implicit(scope)  # type: ignore[assignment]
        written = x.targets(target)
        x.implicit = None
        for name in names_written(target):
            self._check_net(name, scope, "`assign`")
        width = sum(t.width for t in written)
        self._warn_cut(x, value, width, target)
        self.b.drive(written, x.to_width(value, width), item.start, "assign", scope.path)

    def _warn_cut(self, x: ExpressionLowering, value: ast.Expr, width: int, target: ast.Expr) -> None:
        if isinstance(value, ast.Name | ast.Concat | ast.Part | ast.Repeat):
            own = x.size(value)[0]
            if own > width:
                self.collector.warning("width-cut", f"{own} bits are cut to {width}: the upper {own - width} are lost", target.start, value.end)

    def _check_net(self, name: ast.Name, scope: Scope, by: str) -> None:
        entry = scope.find(name.name)
        if isinstance(entry, Vector) and entry.kind in ("reg", "integer", "time"):
            raise self._error(
                "reg-driven", f"`{name.name}` is declared `{entry.kind}` and cannot be driven by {by}", name,
                "declare it as `wire`, or write it inside an `always` block",
            )  # fmt: skip
        if scope.find(name.name) is self.scope.entries.get(name.name) and self.directions.get(name.name, ("",))[0] == "in":
            raise self._error("input-driven", f"`{name.name}` is an input and gets its value from outside", name)

    def _gate(self, g: ast.GateInstance, scope: Scope) -> None:
        if g.range is not None:
            raise self._error("not-yet", "arrays of gates are not read by this version", g)
        x = self._x(scope)
        x.implicit = self._implicit(scope)  # type: ignore[assignment]
        for t in g.terminals:
            width = x.size(t)[0]
            if width != 1 and not (isinstance(t, ast.Number) and t.width is None):
                raise self._error("gate-width", f"a gate connects single bits, this one has {width}", t, "use a bit select")
        terminals = g.terminals
        if g.gate in _TRISTATE:
            if len(terminals) != 3:
                raise self._error("gate-count", f"`{g.gate}` has one output, one input and one control", g)
            outputs = terminals[:1]
            enable: ir.Expr = x.to_width(terminals[2], 1)
            if not _TRISTATE[g.gate]:
                enable = ir.Unary(1, "not", enable)
            value: ir.Expr = x.to_width(terminals[1], 1)
            value = ir.Tristate(1, enable, ir.Unary(1, "not", value) if g.gate in _INVERTING else _settled(value))
        elif g.gate in ("buf", "not"):
            if len(terminals) < 2:
                raise self._error("gate-count", f"`{g.gate}` needs an output and an input", g)
            outputs = terminals[:-1]
            value = ir.Unary(1, "not", x.to_width(terminals[-1], 1))
            if g.gate == "buf":
                value = ir.Unary(1, "not", value)
        elif g.gate in _GATE_OPS:
            if len(terminals) < 2:
                raise self._error("gate-count", f"`{g.gate}` needs an output and at least one input", g)
            outputs = terminals[:1]
            inputs = [x.to_width(t, 1) for t in terminals[1:]]
            value = inputs[0] if len(inputs) > 1 else _settled(inputs[0])
            for other in inputs[1:]:
                value = ir.Binary(1, _GATE_OPS[g.gate], value, other)
            if g.gate in _INVERTING:
                value = ir.Unary(1, "not", value)
        else:
            raise self._error("not-yet", f"`{g.gate}` is not read by this version", g)
        for output in outputs:
            written = x.targets(output)
            for name in names_written(output):
                self._check_net(name, scope, "a gate")
            self.b.drive(written, value, g.start, g.gate, scope.path)
        self.instance.children.append(Instance(g.name or "", g.gate, g.start))

    def _process(self, p: ast.Process, scope: Scope) -> None:
        x = self._x(scope)
        body = p.body
        watches: list[Watch] | None = []
        if p.kind in ("always", "always_ff"):
            if not isinstance(body, ast.Timed) or body.control is None:
                raise self._error("always-no-event", "this `always` waits for nothing", p, "write `always @*` or `always @(posedge clk)`")
            watches = None if body.control.terms is None else self._watches(body.control.terms, x, scope)
            body = body.body
        lowered = StatementLowering(self._x(scope), self._block_scope).statement(body) or ir.Block(p.start, [])
        kind: Literal["continuous", "always", "initial"] = "initial" if p.kind == "initial" else "always"
        if p.kind in ("always_comb", "always_latch"):
            kind = "continuous"
            own = {id(t.signal) for t in targets(lowered)}
            watches = [w for w in body_watches(lowered) if id(w.signal) not in own]
        elif watches is None:
            watches = body_watches(lowered)
        self._warn_mixed(lowered, p)
        self.b.process(Process(kind, lowered, watches, p.start, p.kind, scope.path))

    def _warn_mixed(self, body: ir.Stmt, p: ast.Process) -> None:
        kinds: dict[int, set[bool]] = {}
        for s in statements(body):
            if isinstance(s, ir.Assign):
                for t in s.targets:
                    kinds.setdefault(t.signal.id, set()).add(s.blocking)
                    if len(kinds[t.signal.id]) == 2:
                        name = t.signal.name.rpartition(".")[2]
                        self.collector.warning(
                            "mixed-assignment", f"`{name}` is assigned with `=` and with `<=` in one process", s.position, None,
                            "use one of the two for it",
                        )  # fmt: skip

    def _block_scope(self, block: ast.Block, scope: Scope) -> Scope:
        """The scope of a block with declarations at its head."""
        inner = Scope(f"{scope.path}.{block.name or 'block'}", scope)
        for item in block.declarations:
            if isinstance(item, ast.Parameter):
                self._parameter(item, inner)
            else:
                self._declare(item, inner)
        return inner

    def _watches(self, terms: list[ast.EventTerm], x: ExpressionLowering, scope: Scope) -> list[Watch]:
        watches: list[Watch] = []
        for term in terms:
            lowered = x.self_determined(term.expr)
            edge: Literal["any", "pos", "neg"] = term.edge  # type: ignore[assignment]
            if isinstance(lowered, ir.Ref):
                width = 1 if edge != "any" else lowered.width
                watches.append(Watch(lowered.signal, edge, 0, width))
            elif isinstance(lowered, ir.Slice) and isinstance(lowered.a, ir.Ref):
                width = 1 if edge != "any" else lowered.width
                watches.append(Watch(lowered.a.signal, edge, lowered.low, width))
            else:
                hidden = self.b.signal(f"{scope.path}.@{term.start}", lowered.width, "net", term.start)
                self.b.drive([ir.Target(hidden, 0, lowered.width)], lowered, term.start, "event", scope.path)
                watches.append(Watch(hidden, edge, 0, 1 if edge != "any" else lowered.width))
        return watches

    # Functions.

    def _lower_function(self, entry: FunctionEntry) -> ir.Function:
        if entry.lowered is not None:
            return entry.lowered
        item = entry.item
        scope = Scope(f"{entry.scope.path}.{item.name}", entry.scope)
        width, msb, lsb = 1, 0, 0
        signed = item.signed
        if item.integer:
            width, msb, signed = 32, 31, True
        elif item.range is not None:
            msb, lsb, width = self._range(item.range, entry.scope)
        entry.signed = signed
        result = self.b.signal(f"{scope.path}.{item.name}", width, "variable", item.start)
        params: list[Signal] = []
        local: list[Signal] = []
        for declaration in item.declarations:
            if isinstance(declaration, ast.Declaration):
                completes = [d.name in scope.entries for d in declaration.names]
                if all(completes) and not declaration.direction:
                    continue  # `input a; reg a;`
                if declaration.direction in ("out", "inout"):
                    raise self._error("function-output", "a function has inputs only", declaration, "its result is its name")
                self._declaration(
                    ast.Declaration(
                        declaration.start,
                        declaration.end,
                        declaration.kind or "reg",
                        "",
                        declaration.signed,
                        declaration.range,
                        declaration.names,
                    ),
                    scope,
                )
                for d in declaration.names:
                    vector = scope.entries[d.name]
                    assert isinstance(vector, Vector)
                    (params if declaration.direction == "in" else local).append(vector.signal)
            elif isinstance(declaration, ast.Parameter):
                self._parameter(declaration, scope)
        scope.entries[item.name] = Vector(result, msb, lsb, signed, "function", [], item.start)
        # Inside its own body the name means the result, so a function cannot see itself as a function here.
        function = ir.Function(item.name, params, result, local, None, item.start)
        entry.lowered = function
        self.b.design.functions.append(function)
        x = ExpressionLowering(scope, self.collector, self.b.limits, self._lower_function)
        body = ast.Block(item.start, item.end, None, [], item.body)
        function.body = StatementLowering(x, self._block_scope).statement(body)
        return function

    # Instances.

    def _instance(self, item: ast.Instance, scope: Scope) -> None:
        child = self.b.modules.get(item.module)
        if child is None:
            hint = did_you_mean(item.module, self.b.modules) or "hand in the file with this module too"
            raise self._error("no-module", f"there is no module `{item.module}`", item, hint)
        if item.range is not None:
            raise self._error("not-yet", "arrays of instances are not read by this version", item)
        x = self._x(scope)
        overrides = self._overrides(child, item, x)
        x.implicit = self._implicit(scope)  # type: ignore[assignment]
        given = self._connections(child, item, scope)
        aliases: dict[str, Signal] = {}
        directions = _port_directions(child)
        for port, connection in given.items():
            signal = self._plain_signal(connection, scope, directions.get(port, ("", False)))
            if signal is not None:
                aliases[port] = signal
        path = f"{scope.path}.{item.name}"
        widths = _PortWidths(self, child, overrides, path)
        aliases = {port: s for port, s in aliases.items() if widths.width(port) == s.width}
        instance, ports = self.b.module(child, item.name, path, overrides, aliases, self.depth + 1)
        self.instance.children.append(instance)
        for made in ports:
            if made.name in given and made.name not in aliases:
                self._connect(made, given[made.name], x, scope)

    def _overrides(self, child: ast.Module, item: ast.Instance, x: ExpressionLowering) -> Overrides:
        names = [p.name for p in child.items if isinstance(p, ast.Parameter) and not p.local]
        found: Overrides = {}
        for index, connection in enumerate(item.parameters):
            name = connection.port
            if name is None:
                if index >= len(names):
                    raise self._error("too-many", f"`{child.name}` has {len(names)} parameters", connection)
                name = names[index]
            elif name not in names:
                raise self._error("no-parameter", f"`{child.name}` has no parameter `{name}`", connection, did_you_mean(name, names))
            if connection.value is not None:
                found[name] = x.constant(connection.value, "a parameter's value")
        return found

    def _connections(self, child: ast.Module, item: ast.Instance, scope: Scope) -> dict[str, ast.Expr]:
        given: dict[str, ast.Expr] = {}
        by_name = [c for c in item.connections if c.port is not None]
        for index, c in enumerate(item.connections):
            if c.everything:
                for port in child.ports:
                    if port not in {n.port for n in by_name} and scope.find(port) is not None:
                        given[port] = ast.Name(c.start, c.end, port)
                continue
            name = c.port
            if name is None:
                if by_name:
                    raise self._error("mixed-connections", "connections by name and by order cannot be mixed", c)
                if index >= len(child.ports):
                    raise self._error("too-many", f"`{child.name}` has {len(child.ports)} ports, here are {len(item.connections)}", item)
                name = child.ports[index]
            elif name not in child.ports:
                raise self._error("no-port", f"`{child.name}` has no port `{name}`", c, did_you_mean(name, child.ports))
            elif name in given:
                raise self._error("duplicate", f"port `{name}` is connected twice", c)
            if c.value is not None:
                given[name] = c.value
        if not by_name and 0 < len(item.connections) < len(child.ports):
            self.collector.warning("too-few", f"`{child.name}` has {len(child.ports)} ports, here are {len(item.connections)}", item.start, item.end)
        return given

    def _plain_signal(self, e: ast.Expr, scope: Scope, port: tuple[str, bool]) -> Signal | None:
        """The signal outside, when a port can simply be the same wire."""
        direction, is_variable = port
        if not isinstance(e, ast.Name) or is_variable:
            return None
        entry = scope.find(e.name)
        if entry is None and direction:
            self._x_with_implicit(scope).size(e)
            entry = scope.find(e.name)
        if not isinstance(entry, Vector) or entry.dims:
            return None
        if direction != "in":
            if entry.signal.kind != "net":
                return None
            self._check_net(e, scope, "an instance")
        return entry.signal

    def _x_with_implicit(self, scope: Scope) -> ExpressionLowering:
        x = self._x(scope)
        x.implicit = self._implicit(scope)  # type: ignore[assignment]
        return x

    def _connect(self, port: Port, e: ast.Expr, x: ExpressionLowering, scope: Scope) -> None:
        width = port.signal.width
        own = x.size(e)[0]
        if own != width and not (isinstance(e, ast.Number) and e.width is None):
            self.collector.warning("port-width", f"port `{port.name}` is {width} bits wide, connected are {own}", e.start, e.end)
        if port.direction == "in":
            self.b.drive([ir.Target(port.signal, 0, width)], x.to_width(e, width), e.start, "port", scope.path)
            return
        written = x.targets(e)
        for name in names_written(e):
            self._check_net(name, scope, "an instance")
        value: ir.Expr = ir.Ref(width, port.signal)
        total = sum(t.width for t in written)
        if total < width:
            value = ir.Slice(total, value, 0)
        elif total > width:
            value = ir.Extend(total, value, port.signed)
        self.b.drive(written, value, e.start, "port", scope.path)

    # Generate (12.4).

    def _generate_for(self, item: ast.GenerateFor, scope: Scope) -> None:
        if not isinstance(item.init.target, ast.Name):
            raise self._error("bad-target", "a generate loop counts with a genvar", item.init)
        name = item.init.target.name
        inner = Scope(scope.path, scope)
        value = self._x(scope).integer(item.init.value, "the start of a generate loop")
        rounds = 0
        while True:
            inner.entries[name] = Parameter(ir.Const(32, *values.word(value, 32)), True, item.start)
            if not self._x(inner).integer(item.cond, "the condition of a generate loop"):
                return
            rounds += 1
            if rounds > self.b.limits.loop_rounds:
                raise LimitReached(f"this generate loop runs more than {self.b.limits.loop_rounds} rounds", item.start)
            label = f"{item.body.name or 'genblk'}[{value}]"
            block = Scope(f"{scope.path}.{label}", scope)
            block.entries[name] = inner.entries[name]
            self._items(item.body.items, block)
            value = self._x(inner).integer(item.step.value, "the step of a generate loop")

    def _generate_case(self, item: ast.GenerateCase, scope: Scope) -> None:
        x = self._x(scope)
        subject = x.integer(item.subject, "what a generate case looks at")
        for labels, block in item.arms:
            if any(x.integer(label, "a case label") == subject for label in labels):
                self._generate_block(block, scope, "")
                return
        self._generate_block(item.default, scope, "")

    def _generate_block(self, block: ast.GenerateBlock | None, scope: Scope, label: str) -> None:
        if block is not None:
            self._items(block.items, Scope(f"{scope.path}.{block.name or label or 'genblk'}", scope))


def _settled(value: ir.Expr) -> ir.Expr:
    """A value as a gate puts it out: z becomes x."""
    return ir.Unary(value.width, "not", ir.Unary(value.width, "not", value))


def _port_directions(module: ast.Module) -> dict[str, tuple[str, bool]]:
    """Of each port its direction, and whether it is a variable inside."""
    directions: dict[str, str] = {}
    variables: set[str] = set()
    for item in module.items:
        if isinstance(item, ast.Declaration):
            for d in item.names:
                if item.direction:
                    directions[d.name] = item.direction
                if item.kind in ("reg", "logic", "integer", "time", "bit"):
                    variables.add(d.name)
    return {name: (direction, name in variables) for name, direction in directions.items()}


class _PortWidths:
    """Widths of a module's ports under given parameters, before it is built."""

    def __init__(self, body: _ModuleBody, child: ast.Module, overrides: Overrides, path: str) -> None:
        self._ranges: dict[str, ast.Range | None] = {}
        for item in child.items:
            if isinstance(item, ast.Declaration) and item.direction:
                for d in item.names:
                    self._ranges[d.name] = item.range
        quiet = Collector()
        builder = _Builder({}, Design("", "verilog"), quiet, body.b.limits)
        self._body = _ModuleBody(builder, child, Scope(path), overrides, {}, body.instance, 0)
        self._body._parameters()

    def width(self, port: str) -> int:
        r = self._ranges.get(port)
        if r is None:
            return 1
        try:
            return self._body._range(r, self._body.scope)[2]
        except Wrong:
            return -1
