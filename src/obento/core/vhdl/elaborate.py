"""From design units to what runs: packages, entities with their generics and ports, instances, generate (IEEE 1076 clause 14)."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from typing import Any, TypeVar

from obento.core.diagnostics import Collector
from obento.core.ir.design import Design, Instance, Port, ScopeOfNames, Signal, Variable
from obento.core.limits import LimitReached, Limits
from obento.core.source import Sources
from obento.core.suggest import did_you_mean
from obento.core.vhdl import ast, border
from obento.core.vhdl import typed as t
from obento.core.vhdl.concurrent import Concurrent
from obento.core.vhdl.emit import Emitter, compiled
from obento.core.vhdl.forgotten import never_assigned, read_too_early
from obento.core.vhdl.lanes import Lanes, no_drivers_meet
from obento.core.vhdl.lanes_values import NoLanes
from obento.core.vhdl.names import Wrong
from obento.core.vhdl.run import Run
from obento.core.vhdl.scope import Component, LibraryName, Object, PackageName, Scope
from obento.core.vhdl.sequential import signals_read, static_prefix
from obento.core.vhdl.standard import INTEGER, standard_scope
from obento.core.vhdl.types import ArrayType, EnumType, RangeX, RecordType, Subtype, default_value
from obento.core.vhdl.world import LIBRARIES, TAUGHT, World, library_package

R = TypeVar("R")

Foreign = Callable[[str, ast.Node], Design | None]


class _Bench:
    """What elaboration may use of a bench: files to read, nothing to print on."""

    def __init__(self, say: Callable[[str, int], None], folder: Any) -> None:
        self.say = say
        self.folder = folder


class _Host:
    """The kernel that functions see while constants are worked out."""

    def __init__(self, limits: Limits, bench: _Bench, expired: Callable[[], bool]) -> None:
        self.limits = limits
        self.bench = bench
        self.now = self.rounds = self.depth = 0
        self.most_rounds = 256
        self.words: list[Any] = []
        self.changed = None
        self._expired = expired

    def many_rounds(self, position: int) -> None:
        if self.rounds > self.limits.constant_steps * 20 or self._expired():
            raise LimitReached("working out a constant takes too long", position, "does a loop or recursion never end?")
        self.most_rounds = self.rounds + 4096


@dataclass(slots=True)
class LibraryPart:
    """One of our packages, analysed once for all."""

    scope: Scope
    pieces: list[Any]
    names: dict[str, Any] = field(default_factory=dict)


class Elaborator(Concurrent):
    """Builds one Design with one Run."""

    def __init__(
        self,
        world: World,
        collector: Collector,
        limits: Limits,
        sources: Sources | None = None,
        foreign: Foreign | None = None,
        folder: Any = None,
        prefix: str = "",
    ) -> None:
        self.world = world
        self.collector = collector
        self.limits = limits
        self.sources = sources
        self.foreign = foreign
        self.emitter = Emitter(prefix)
        self.scope = Scope(None)
        self.process = None
        self.subprogram = None
        self.package = ""
        self.in_library = False
        self.broken = set()
        self.setup = []
        self.pending = []
        self.processes = []
        self._memo = {}
        self._depth = 0
        self._open_loops = []
        self._standard = standard_scope() if not prefix else _standard()
        self._packages: dict[str, PackageName] = {}
        self._opening: list[str] = []
        self._instances = 0
        self._levels: list[str] = []
        self._configured: list[dict[str, ast.ConfigSpec]] = [{}]
        self._arrays: list[tuple[EnumType, int]] = []
        self._taught_said = False
        self._joined: list[tuple[Object, Object, int]] = []
        self._implicit_signals: dict[str, Object] = {}
        self._variables: list[Variable] = []
        self.objects: list[Object] = []
        self.joins: list[tuple[Object, tuple[Any, ...], t.X, t.X | None, int, bool]] = []
        self._silent_ports = False
        self.outside: list[Signal] = []
        self.names: list[ScopeOfNames] = []
        self.design = Design("", "vhdl", precision=-15)
        self.instance = Instance("", "", 0)
        live = Run(lambda run: None)
        bench = _Bench(self._said_early, folder)
        live.host = _Host(limits, bench, lambda: False)  # type: ignore[assignment]
        live.files = type(live.files)(bench)
        self.emitter.live["R"] = live

    def _said_early(self, text: str, position: int) -> None:
        """A report while constants are worked out."""
        severity = text.partition(":")[0]
        if severity in ("error", "failure"):
            self.collector.warning("early-report", text.strip(), position)

    def line(self, position: int) -> int:
        return self.sources.place(position).line if self.sources is not None else 0

    # Packages.

    def package_named(self, library: str, name: str, node: ast.Node) -> PackageName | None:
        known = LIBRARIES.get(library)
        if known is not None:
            if name not in known:
                raise self.wrong("undeclared", f"the library `{library}` has no package `{name}`", node, did_you_mean(name, known))
            return self._library(name, node)
        if name in self._packages:
            return self._packages[name]
        unit = self.world.packages.get(name)
        if unit is None:
            if name in self.world.entities:
                raise self.wrong("use", f"`{name}` is an entity, not a package", node)
            hint = did_you_mean(name, self.world.packages)
            raise self.wrong("undeclared", f"there is no package `{name}` among these files", node, hint or "hand in the file that has it")
        if name in self._opening:
            raise self.wrong("recursion", f"the package `{name}` uses itself", node)
        self._opening.append(name)
        try:
            return self._user_package(unit)
        finally:
            self._opening.pop()

    def _library(self, name: str, node: ast.Node) -> PackageName:
        if name in self._packages:
            return self._packages[name]
        if name in TAUGHT and not self._taught_said:
            self._taught_said = True
            text = f"`{name}` is no standard package, though it often stands in ieee"
            self.collector.note("taught-package", text, node.pos, node.end, "numeric_std with unsigned and signed is the standard way")
        if name == "standard":
            found = PackageName(name, self._standard)
        else:
            part = _library_part(name)
            found = PackageName(name, part.scope)
            for needed in _needs(name):
                self._library(needed, node)
            self.emitter.names.update(part.names)
            for piece in part.pieces:
                self.emitter.pieces.append(piece)
                exec(compiled(*piece) if isinstance(piece, tuple) else piece, self.emitter.live)  # our own text
        self._packages[name] = found
        return found

    def _user_package(self, unit: ast.Package) -> PackageName:
        saved = self.scope, self.package, self.process, self.subprogram, self.pending, self._open_loops
        self.process = self.subprogram = None
        self.pending, self._open_loops = [], []
        depth, self._depth = self._depth, 0
        memo, self._memo = self._memo, {}
        outer = self.unit_scope(unit)
        self.scope = Scope(outer, unit.name)
        self.package = unit.name
        made = PackageName(unit.name, self.scope)
        self._packages[unit.name] = made
        try:
            self.declare_all(unit.decls)
            body = self.world.bodies.get(unit.name)
            if body is not None:
                inner = Scope(self.scope, unit.name)
                inner.names = _BodyNames(self.scope)
                self._context(inner, body)
                self.scope = inner
                self.declare_all(body.decls)
            self._check_bodies(made, unit, body)
            self.emit_pending()
        finally:
            self.scope, self.package, self.process, self.subprogram, self.pending, self._open_loops = saved
            self._depth, self._memo = depth, memo
        return made

    def _check_bodies(self, made: PackageName, unit: ast.Package, body: ast.PackageBody | None) -> None:
        for names in made.scope.names.values():
            for f in names:
                from obento.core.vhdl.scope import Subprogram

                if (
                    isinstance(f, Subprogram)
                    and f.native is None
                    and not f.analysed
                    and not f.foreign
                    and f.node is not None
                    and f.package == unit.name
                ):
                    where = "has no body" if body is not None else "has no body: the package body is missing"
                    self.collector.error("no-body", f"`{f.name}` {where}", f.pos, f.pos + 8)
                if isinstance(f, Object) and f.kind == "constant" and f.implicit:
                    self.collector.error("no-value", f"the constant `{f.name}` is never given a value", f.pos)

    def unit_scope(self, unit: ast.Unit) -> Scope:
        """The outermost scope of a unit, with what its context makes visible."""
        scope = Scope(self._standard)
        for library in ("std", "work", *unit.libraries):
            scope.names.setdefault(library, [LibraryName(library)])
        self._context(scope, unit)
        return scope

    def _context(self, scope: Scope, unit: ast.Unit) -> None:
        for library in unit.libraries:
            scope.names.setdefault(library, [LibraryName(library)])
        outer, self.scope = self.scope, scope
        for clause in unit.context:
            self.use(clause)
        self.scope = outer

    # Units.

    def top(self, name: str) -> Design | None:
        """A whole design from its top entity; None when something is wrong (reported)."""
        entity = self.world.entities[name]
        errors = self.collector.errors
        self.design.unit = name
        self.instance = self.design.root = Instance(name, name, entity.name_pos)
        try:
            wanted = ""
            chosen = [c for c in self.world.configurations.values() if c.entity == name]
            if len(chosen) == 1:  # a configuration of the whole, handed in with it, is meant to be used
                wanted = chosen[0].block.name
                self._configured.append(_specs(chosen[0].block))
            self._unit(entity, self._architecture(entity, wanted, entity), name, {}, None)
        except Wrong:
            pass
        except LimitReached as limit:
            self.collector.error("limit", limit.text, limit.position, None, limit.hint)
        except RecursionError:
            self.collector.error("too-deep", "this is nested too deep to be built", entity.name_pos)
        finally:
            for enum_type, count in reversed(self._arrays):
                del enum_type.arrays[count:]
        if self.collector.errors > errors:
            return None
        self._check_drivers()
        if self.collector.errors > errors:
            return None
        never_assigned(self.objects, self._warn)
        for p in self.processes:
            read_too_early(p, self._warn)
        self._finish()
        return self.design

    def _warn(self, code: str, text: str, start: int, end: int, hint: str) -> None:
        self.collector.warning(code, text, start, end, hint)

    def _declare_with(self, made: Any) -> None:
        if isinstance(made, ArrayType) and isinstance(made.element.type, EnumType):
            self._arrays.append((made.element.type, len(made.element.type.arrays)))
        super()._declare_with(made)

    def _architecture(self, entity: ast.Entity, wanted: str, node: ast.Node) -> ast.Architecture:
        known = self.world.architectures.get(entity.name, [])
        if wanted:
            for a in known:
                if a.name == wanted:
                    return a
            raise self.wrong("undeclared", f"`{entity.name}` has no architecture `{wanted}`", node, did_you_mean(wanted, (a.name for a in known)))
        if not known:
            near = did_you_mean(entity.name, self.world.architectures)
            pos = entity.name_pos
            where = ast.Node(pos, pos + len(entity.name))
            raise self.wrong("no-architecture", f"the entity `{entity.name}` has no architecture", where, near or "add: architecture rtl of ...")
        return known[-1]

    def _unit(
        self,
        entity: ast.Entity,
        architecture: ast.Architecture,
        label: str,
        generics: Mapping[str, t.X],
        connect: Callable[[list[Object]], None] | None,
    ) -> list[Object]:
        """One entity with its architecture, below whatever is being built. Gives its ports."""
        self._instances += 1
        if self._instances > self.limits.instances:
            raise LimitReached(f"more than {self.limits.instances} instances", entity.name_pos)
        if len(self._levels) > self.limits.instance_depth:
            raise LimitReached("instances nest too deep", entity.name_pos, "does an entity use itself?")
        saved = self.scope, self.pending, self.process, self.subprogram
        self.pending, self.process, self.subprogram = [], None, None
        self._levels.append(label)
        outer_names = self.names
        scope_of_names = ScopeOfNames(label, "module", ".".join(self._levels))
        outer_names.append(scope_of_names)
        self.names, self._variables = scope_of_names.children, scope_of_names.variables
        self.scope = Scope(self.unit_scope(entity), entity.name)
        try:
            self._generics(entity.generics, generics)
            ports = self._ports(entity.ports, connect is None)
            if connect is not None:
                connect(ports)
            self.declare_all(entity.decls)
            self._context(self.scope, architecture)
            self.scope = Scope(self.scope, architecture.name)
            self._configured.append({})
            self._body(architecture.decls, [*entity.body, *architecture.body])
            self._configured.pop()
        finally:
            self.scope, self.pending, self.process, self.subprogram = saved
            self._levels.pop()
            self.names = outer_names
            self._variables = scope_of_names.variables
        return ports

    def _body(self, decls: Sequence[ast.Decl], body: Sequence[ast.Concurrent]) -> None:
        self.declare_all(decls)
        self.emit_pending()
        for s in body:
            try:
                self._concurrent(s)
            except Wrong:
                continue

    def _generics(self, generics: Sequence[ast.Interface], given: Mapping[str, t.X]) -> None:
        for g in generics:
            subtype = self.subtype(g.subtype)
            value = given.get(g.name)
            if value is None:
                if g.default is None:
                    hint = "give it a default value, since it stands at the top" if len(self._levels) == 1 else "give it in the generic map"
                    raise self.wrong("generic", f"the generic `{g.name}` has no value", g, hint)
                value = self.expr(g.default, subtype.type, subtype)
            o = Object(g.name, "constant", subtype, g.pos, self.emitter.fresh("g"))
            o.value = self.worked_out(value, subtype)
            o.known = True
            if isinstance(subtype.type, ArrayType) and subtype.ranges is None:
                from obento.core.vhdl.declare import range_of

                o.subtype = Subtype(subtype.type, [range_of(o.value, subtype.type)])
            self.add(g.name, o, g)

    def _ports(self, ports: Sequence[ast.Interface], outermost: bool) -> list[Object]:
        made: list[Object] = []
        for p in ports:
            subtype = self.subtype(p.subtype)
            if isinstance(subtype.type, ArrayType) and subtype.ranges is None and outermost:
                raise self.wrong("unconstrained", f"the port `{p.name}` needs its range", p, "write for instance (7 downto 0)")
            value = self.expr(p.default, subtype.type, subtype) if p.default is not None else None
            o = Object(p.name, "signal", subtype, p.pos, self.emitter.fresh("s"), p.mode or "in", is_port=True, default=value)
            if subtype.static():
                o.value = self.first_value(value, subtype)
            self.add(p.name, o, p)
            if outermost:
                self.set_up_signal(o)
                self._design_port(o)
            made.append(o)
        return made

    # Signals in the design, for borders, waveforms and messages.

    def note_signal(self, o: Object) -> None:
        self.objects.append(o)
        width = border.width_of(o.subtype)
        if not width or width > self.limits.vector_bits:
            return
        signal = self.design.add_signal(".".join([*self._levels[1:], o.name]), width, "variable", o.pos)
        signal.initial = border.to_word(o.subtype)(o.value)
        o.design_signal = signal
        self.emitter.names[f"m_{o.py}"] = border.to_word(o.subtype)
        self.emitter.names[f"n_{o.py}"] = signal
        self.setup.append(f"R.mirror({o.py}, n_{o.py}, m_{o.py})")
        ranges = o.subtype.ranges
        left, right = border.bounds_shown(ranges[0] if ranges and isinstance(o.subtype.type, ArrayType) else None, width)
        self._variables.append(Variable(o.name, signal, "reg", left, right))

    def _design_port(self, o: Object) -> None:
        if o.design_signal is None:
            if self.design.ports is not None:
                self.collector.note("port-type", f"the port `{o.name}` is of type {o.subtype.shown}, which has no form as digits", o.pos)
            return
        direction: Any = {"in": "in", "out": "out", "buffer": "out", "inout": "inout", "linkage": "inout"}[o.mode]
        self.design.ports.append(Port(o.name, direction, o.design_signal, border.is_signed(o.subtype), o.pos))
        if direction in ("in", "inout"):
            self.emitter.names[f"w_{o.py}"] = border.from_word(o.subtype)
            self.setup.append(f"R.outside({o.py}, n_{o.py}, w_{o.py}, {direction == 'inout'})")
        if direction in ("out", "inout"):
            self.setup.append(f"R.show({o.py}, n_{o.py}, m_{o.py})")

    # Concurrent statements.

    def _concurrent(self, s: ast.Concurrent) -> None:
        match s:
            case ast.Process():
                self.process_statement(s)
            case ast.SignalAssign():
                self.assignment(s)
            case ast.Assert():
                self.concurrent_assertion(s)
            case ast.Call():
                self._call_or_instance(s)
            case ast.Instance():
                self._instance(s)
            case ast.Generate():
                self._generate(s)
            case ast.Block():
                self._block(s)

    def _call_or_instance(self, s: ast.Call) -> None:
        """`label : name;` is an instance when the name is that of a component."""
        name = s.name.prefix if isinstance(s.name, ast.Paren) else s.name
        if s.label and isinstance(name, ast.Id):
            found = self.scope.find(name.name)
            if found and isinstance(found[0], Component):
                if isinstance(s.name, ast.Paren):
                    raise self.wrong("port-map", "`port map` is missing before the connections", s, f"write: {s.label} : {name.name} port map (...)")
                self._instance(ast.Instance(s.pos, s.end, s.label, "component", name, "", [], []))
                return
        self.concurrent_call(s)

    def finish_process(self, p: t.ProcessT) -> None:
        self.processes.append(p)
        for d in p.decls:
            if isinstance(d, t.DeclareSub):
                self.settle_waits(d.subprogram)
        for name in (*p.calls,):
            self.emit_subprogram(name)
        self._flush()
        self.emitter.process(p, ".".join([*self._levels, p.name]))

    def _flush(self) -> None:
        """Signals set up so far come before what uses them."""
        if self.setup:
            self.emitter.execute("\n".join(self.setup) + "\n", "signals", False)
            self.setup = []

    # Generate and blocks.

    def _generate(self, s: ast.Generate) -> None:
        self.label(s.label, s)
        if s.parameter:
            self._for_generate(s)
            return
        selector = self.expr(s.selector) if s.selector is not None else None
        if selector is not None and not isinstance(selector, t.Const):
            raise self.wrong("constant", "a generate chooses by a constant", s)
        for arm in s.arms:
            if selector is not None:
                chosen = self.choices(arm.choices, selector, False)
                taken = chosen is None or any(c[0] <= selector.value <= c[1] if isinstance(c, tuple) else c == selector.value for c in chosen)
            elif arm.condition is None:
                taken = True
            else:
                condition = self.condition(arm.condition)
                self.emit_called(condition)
                if not isinstance(condition, t.Const):
                    condition = self._constant_now(condition, arm.condition)
                taken = bool(condition.value)
            if taken:
                self._region(s.label, arm)
                return

    def _constant_now(self, x: t.X, e: ast.Expr) -> t.Const:
        if any(signals_read(x)):
            raise self.wrong("constant", "the condition of a generate must be constant", e, "a signal is looked at in a process: if ... then")
        return t.Const(x.type, x.pos, self.worked_out(x, Subtype(x.type)))

    def _for_generate(self, s: ast.Generate) -> None:
        r = self.discrete(s.range)  # type: ignore[arg-type]
        left, right = (v.value if isinstance(v, t.Const) else self._constant_now(v, s.range).value for v in (r.left, r.right))  # type: ignore[arg-type]
        rounds = range(left, right - 1, -1) if r.down is True else range(left, right + 1)
        if len(rounds) > self.limits.generate_rounds:
            raise self.wrong("limit", f"this generate has more than {self.limits.generate_rounds} rounds", s)
        for value in rounds:
            outer = self.scope
            self.scope = Scope(outer, s.label)
            o = Object(s.parameter, "constant", Subtype(r.left.type, [r]), s.pos, "", value=value, known=True, loop=True)
            self.scope.add(s.parameter, o)
            try:
                self._region(f"{s.label}({value})", s.arms[0])
            finally:
                self.scope = outer

    def _region(self, label: str, arm: ast.GenerateArm) -> None:
        outer, pending = self.scope, self.pending
        self.scope, self.pending = Scope(outer, label), []
        self._levels.append(label)
        names, variables = self.names, self._variables
        inner = ScopeOfNames(label, "begin", ".".join(self._levels))
        names.append(inner)
        self.names, self._variables = inner.children, inner.variables
        self._configured.append({})
        try:
            self._body(arm.decls, arm.body)
        finally:
            self._configured.pop()
            self.scope, self.pending = outer, pending
            self._levels.pop()
            self.names, self._variables = names, variables

    def _block(self, s: ast.Block) -> None:
        self.label(s.label, s)
        outer, pending = self.scope, self.pending
        self.scope, self.pending = Scope(outer, s.label), []
        self._levels.append(s.label)
        self._configured.append({})
        try:
            if s.generics:
                given = {g.name: self.expr(a.value, self.subtype(g.subtype).type) for g, a in zip(s.generics, s.generic_map, strict=False)}
                self._generics(s.generics, given)
            if s.ports:
                ports = self._ports(s.ports, False)
                self._connect(ports, s.port_map, s, outer)
            if s.guard is not None:
                self._guard(s)
            self._body(s.decls, s.body)
        finally:
            self._configured.pop()
            self.scope, self.pending = outer, pending
            self._levels.pop()

    def _guard(self, s: ast.Block) -> None:
        """The implicit signal GUARD follows its expression."""
        from obento.core.vhdl.standard import BOOLEAN

        assert s.guard is not None
        node = ast.Node(s.guard.pos, s.guard.end)
        self.new_signal("guard", Subtype(BOOLEAN), None, node)
        assign = ast.SignalAssign(
            node.pos,
            node.end,
            "",
            ast.Id(node.pos, node.end, "guard"),
            ast.Waveform(node.pos, node.end, [ast.Wave(node.pos, node.end, s.guard, None)]),
        )
        self.assignment(assign)

    # Instances.

    def configure(self, d: ast.ConfigSpec) -> None:
        name = d.component.name if isinstance(d.component, ast.Id) else ""
        for label in d.labels:
            self._configured[-1][f"{label}:{name}"] = d

    def _configuration_for(self, label: str, component: str) -> ast.ConfigSpec | None:
        for level in reversed(self._configured):
            for key in (label, "all", "others"):
                found = level.get(f"{key}:{component}")
                if found is not None:
                    return found
        return None

    def _instance(self, s: ast.Instance) -> None:
        self.label(s.label, s)
        generic_map, port_map = s.generics, s.ports
        if s.kind == "component":
            self._component(s)
            return
        if s.kind == "configuration":
            name = _last_name(s.what)
            configuration = self.world.configurations.get(name)
            if configuration is None:
                raise self.wrong("undeclared", f"there is no configuration `{name}`", s.what, did_you_mean(name, self.world.configurations))
            self._configured.append(_specs(configuration.block))
            try:
                entity = self._entity_named(ast.Id(s.what.pos, s.what.end, configuration.entity))
                assert entity is not None
                self._place(s, entity, configuration.block.name, generic_map, port_map)
            finally:
                self._configured.pop()
            return
        entity = self._entity_named(s.what)
        if entity is None:
            self._foreign(s, _last_name(s.what), port_map)
            return
        self._place(s, entity, s.architecture, generic_map, port_map)

    def _entity_named(self, e: ast.Expr) -> ast.Entity | None:
        name = _last_name(e)
        if isinstance(e, ast.Selected) and isinstance(e.prefix, ast.Id):
            library = e.prefix.name
            if not any(isinstance(d, LibraryName) for d in self.scope.find(library)):
                raise self.wrong("undeclared", f"the library `{library}` is not declared", e, "entities of the same hand-in are in `work`")
        elif isinstance(e, ast.Id) and e.name not in self.world.entities:
            raise self.wrong("undeclared", f"there is no entity `{name}`", e, did_you_mean(name, self.world.entities) or "write entity work.name")
        found = self.world.entities.get(name)
        if found is None and self.foreign is not None and not did_you_mean(name, self.world.entities):
            return None
        if found is None:
            hint = did_you_mean(name, self.world.entities)
            raise self.wrong("undeclared", f"there is no entity `{name}` among these files", e, hint or "hand in the file that has it")
        return found

    def _component(self, s: ast.Instance) -> None:
        found = self.denote(s.what)
        if not isinstance(found, Component):
            name = _last_name(s.what)
            raise self.wrong("undeclared", f"`{name}` is no component", s.what)
        spec = self._configuration_for(s.label, found.name)
        name, architecture, inner_map, inner_generics = found.name, "", None, None
        if spec is not None and spec.binding is not None:
            b = spec.binding
            if b.configuration is not None:
                configuration = self.world.configurations.get(_last_name(b.configuration))
                if configuration is None:
                    raise self.wrong("undeclared", f"there is no configuration `{_last_name(b.configuration)}`", b)
                name, architecture = configuration.entity, configuration.block.name
            elif b.entity is not None:
                name, architecture = _last_name(b.entity), b.architecture
            else:
                return
            inner_map, inner_generics = b.ports or None, b.generics or None
        self._check_formals(s.ports, [p.name for p in found.node.ports], found.name, "port", s)
        self._check_formals(s.generics, [g.name for g in found.node.generics], found.name, "generic", s)
        entity = self.world.entities.get(name)
        if entity is None:
            if self.foreign is not None:
                self._foreign(s, name, s.ports, found)
                return
            hint = did_you_mean(name, self.world.entities) or "hand in the file that has it"
            raise self.wrong("unbound", f"there is no entity `{name}` for this component", s.what, hint)
        ports = _through(found.node.ports, s.ports, inner_map)
        generics = _through(found.node.generics, s.generics, inner_generics)
        if inner_map is None:
            self._compare_component(found.node, entity, s)
        if spec is not None and spec.inner is not None:
            self._configured.append(_specs(spec.inner))
            architecture = architecture or spec.inner.name
        try:
            self._place(s, entity, architecture, generics, ports, found.node)
        finally:
            if spec is not None and spec.inner is not None:
                self._configured.pop()

    def _compare_component(self, component: ast.ComponentDecl, entity: ast.Entity, s: ast.Instance) -> None:
        """Default binding wants the same names in both (7.3.3)."""
        theirs = {p.name for p in entity.ports}
        for p in component.ports:
            if p.name not in theirs:
                hint = did_you_mean(p.name, theirs)
                raise self.wrong("port", f"the component has a port `{p.name}` that the entity `{entity.name}` has not", p, hint)

    def _check_formals(self, given: Sequence[ast.Assoc], names: Sequence[str], unit: str, what: str, s: ast.Instance) -> None:
        for a in given:
            if not a.choices:
                continue
            formal = a.choices[0]
            while isinstance(formal, ast.Paren) and not (isinstance(formal.prefix, ast.Id) and formal.prefix.name in names) and len(formal.args) == 1:
                formal = formal.args[0].value
            while isinstance(formal, ast.Paren | ast.Selected):
                formal = formal.prefix
            if isinstance(formal, ast.Id) and formal.name not in names:
                hint = did_you_mean(formal.name, names) or f"it has {', '.join(names)}"
                raise self.wrong(what, f"`{unit}` has no {what} `{formal.name}`", formal, hint)
        if sum(not a.choices for a in given) > len(names):
            raise self.wrong(what, f"`{unit}` has {len(names)} {what}s, but {len(given)} are given", s)

    def _place(
        self,
        s: ast.Instance,
        entity: ast.Entity,
        architecture: str,
        generic_map: Sequence[ast.Assoc],
        port_map: Sequence[ast.Assoc],
        component: ast.ComponentDecl | None = None,
    ) -> None:
        """Build an entity as an instance."""
        self._check_formals(port_map, [p.name for p in entity.ports], entity.name, "port", s)
        self._check_formals(generic_map, [g.name for g in entity.generics], entity.name, "generic", s)
        body = self._architecture(entity, architecture, s)
        given = self._given_generics(entity, generic_map, component)
        outer_scope = self.scope
        outer_instance = self.instance
        self.instance = Instance(s.label, entity.name, s.pos)
        outer_instance.children.append(self.instance)
        try:
            self._unit(entity, body, s.label, given, lambda ports: self._connect(ports, port_map, s, outer_scope))
        finally:
            self.instance = outer_instance

    def _given_generics(self, entity: ast.Entity, generic_map: Sequence[ast.Assoc], component: ast.ComponentDecl | None) -> dict[str, t.X]:
        given: dict[str, t.X] = {}
        types = self._generic_types(entity)
        for i, a in enumerate(generic_map):
            name = a.choices[0].name if a.choices and isinstance(a.choices[0], ast.Id) else entity.generics[i].name
            if isinstance(a.value, ast.Open) or name not in types:
                continue
            x = self.expr(a.value, types[name].type, types[name])
            given[name] = x if isinstance(x, t.Const) else self._constant_now(x, a.value)
        if component is not None:
            for g in component.generics:
                if g.name not in given and g.default is not None and g.name in types:
                    x = self.expr(g.default, types[g.name].type)
                    given[g.name] = x if isinstance(x, t.Const) else self._constant_now(x, g.default)
        return given

    def _generic_types(self, entity: ast.Entity) -> dict[str, Subtype]:
        """The generics' types without constraints, which may depend on other generics."""
        if not entity.generics:
            return {}
        outer, self.scope = self.scope, Scope(self.unit_scope(entity))
        try:
            return {g.name: Subtype(self._marked(g.subtype.mark).type) for g in entity.generics}
        finally:
            self.scope = outer

    # Ports.

    def _connect(self, ports: list[Object], port_map: Sequence[ast.Assoc], s: ast.Node, actual_scope: Scope) -> None:
        """Join ports and actuals: the same signal where both are alike, else two that follow each other."""
        by_name = {p.name: p for p in ports}
        parts: dict[str, list[tuple[ast.Expr | None, ast.Assoc]]] = {p.name: [] for p in ports}
        for i, a in enumerate(port_map):
            formal = a.choices[0] if a.choices else None
            if formal is None:
                if i >= len(ports):
                    raise self.wrong("port", f"only {len(ports)} ports are there to connect", a)
                if any(b.choices for b in port_map[:i]):
                    raise self.wrong("port", "connections by position come before those by name", a)
                parts[ports[i].name].append((None, a))
                continue
            name = self._formal_name(formal, by_name)
            if name is None:
                raise self.wrong("port", "this names no port", formal)
            if any(f is None or isinstance(f, ast.Id) for f, _ in parts[name]):
                raise self.wrong("port", f"the port `{name}` is connected twice", formal)
            parts[name].append((formal, a))
        inner_scope = self.scope
        for p in ports:
            self._connect_port(p, parts[p.name], s, actual_scope, inner_scope)

    def _formal_name(self, e: ast.Expr, ports: Mapping[str, Object]) -> str | None:
        while True:
            if isinstance(e, ast.Id):
                return e.name if e.name in ports else None
            if isinstance(e, ast.Paren):
                if isinstance(e.prefix, ast.Id) and e.prefix.name not in ports and len(e.args) == 1:
                    e = e.args[0].value
                else:
                    e = e.prefix
            elif isinstance(e, ast.Selected):
                e = e.prefix
            else:
                return None

    def _connect_port(self, p: Object, given: list[tuple[ast.Expr | None, ast.Assoc]], s: ast.Node, outer: Scope, inner: Scope) -> None:
        if not given or isinstance(given[0][1].value, ast.Open):
            if p.mode == "in" and p.default is None:
                at = given[0][1] if given else s
                text = f"the input `{p.name}` is left open" if given else f"the input `{p.name}` is not connected"
                raise self.wrong("open-input", text, ast.Node(at.pos, at.pos + 1), "connect it, or give it a default value")
            if not p.subtype.static():
                raise self.wrong("unconstrained", f"the port `{p.name}` needs its range when it is left open", s)
            self.set_up_signal(p)
            return
        if len(given) == 1 and (given[0][0] is None or isinstance(given[0][0], ast.Id)):
            self._connect_whole(p, given[0][1], outer, inner)
            return
        self._constrain_by_parts(p, given, outer, inner)
        if not p.subtype.static():
            raise self.wrong("unconstrained", f"the port `{p.name}` needs its range", s)
        p.value = self.first_value(p.default, p.subtype)
        self.set_up_signal(p)
        for formal, a in given:
            assert formal is not None
            self._join(p, formal, a, outer, inner)

    def _constrain_by_parts(self, p: Object, given: list[tuple[ast.Expr | None, ast.Assoc]], outer: Scope, inner: Scope) -> None:
        """A port of open range takes it from the elements that are connected."""
        if not isinstance(p.subtype.type, ArrayType):
            return
        if p.subtype.ranges is not None:
            return
        first = given[0][0]
        if isinstance(first, ast.Paren) and isinstance(first.prefix, ast.Id) and first.prefix.name != p.name:
            x = self._in_scope(outer, lambda: self.expr(given[0][1].value))
            if x.sub is not None and x.sub.ranges is not None:
                p.subtype = Subtype(p.subtype.type, x.sub.ranges)
            return
        indices: list[int] = []
        for formal, _ in given:
            if isinstance(formal, ast.Paren):
                for item in formal.args:
                    r = self.try_range(item.value, INTEGER)
                    if r is not None and r.bounds() is not None:
                        indices += r.bounds()  # type: ignore[arg-type]
                    elif r is None:
                        x = self.expr(item.value, INTEGER)
                        if isinstance(x, t.Const):
                            indices.append(x.value)
        if indices:
            low, high = (t.Const(INTEGER, p.pos, v) for v in (min(indices), max(indices)))
            p.subtype = Subtype(p.subtype.type, [RangeX(low, high, False)])

    def _in_scope(self, scope: Scope, work: Callable[[], R]) -> R:
        saved, self.scope = self.scope, scope
        try:
            return work()
        finally:
            self.scope = saved

    def _connect_whole(self, p: Object, a: ast.Assoc, outer: Scope, inner: Scope) -> None:
        x = self._in_scope(outer, lambda: self._actual(p, a.value))
        if isinstance(p.subtype.type, ArrayType) and p.subtype.ranges is None:
            p.subtype = self._from_value(p.subtype, x, a) if not isinstance(x, t.Read) else Subtype(p.subtype.type, x.sub.ranges if x.sub else None)
            if not p.subtype.static():
                raise self.wrong("unconstrained", f"the range of the port `{p.name}` cannot be told from what is connected", a)
            if not p.known:
                p.value = self.first_value(p.default, p.subtype)
        self._check_port_width(p, x, a)
        if isinstance(x, t.Read) and x.object.kind == "signal" and x.type is p.subtype.type and _same_bounds(x.sub, p.subtype):
            self._check_mode(p, x.object, a)
            p.py = x.object.py
            p.design_signal = x.object.design_signal
            p.guard = x.object.guard
            p.sources = x.object.sources
            self.objects.append(p)
            if p.mode in ("out", "inout", "buffer"):
                self._joined.append((p, x.object, len(p.sources)))
            if p.design_signal is not None:
                self._variables.append(Variable(p.name, p.design_signal, "wire", *_shown(p)))
            return
        if p.value is None and p.subtype.static():
            p.value = self.first_value(p.default, p.subtype)
        self.set_up_signal(p)
        self.join_value(p, (), x, None, a)

    def _check_port_width(self, p: Object, x: t.X, a: ast.Assoc) -> None:
        from obento.core.vhdl.operators import static_length

        if not isinstance(p.subtype.type, ArrayType) or not isinstance(x.type, ArrayType):
            return
        size, wanted = static_length(x), p.subtype.length()
        if size is not None and wanted is not None and size != wanted:
            raise self.wrong("width", f"the port `{p.name}` is {wanted} wide, what is connected {size}", a.value)

    def _check_mode(self, p: Object, actual: Object, a: ast.Assoc) -> None:
        if p.mode in ("out", "inout", "buffer") and actual.is_port and actual.mode == "in":
            raise self.wrong("input", f"the output `{p.name}` drives `{actual.name}`, which is an input", a.value)

    def _actual(self, p: Object, e: ast.Expr) -> t.X:
        """What is connected to a port: a signal or part of one, or for inputs any value."""
        if p.mode in ("out", "inout", "buffer"):
            if isinstance(e, ast.Paren) and len(e.args) == 1 and not e.args[0].choices:
                converted = self._converted_actual(e)
                if converted is not None:
                    return converted
            x = self.denote(e)
            if not isinstance(x, t.X) or not self._is_signal(x):
                raise self.wrong("port", f"the output `{p.name}` must be connected to a signal", e)
            if x.type is not p.subtype.type:
                shown = f"`{p.name}` is of type {p.subtype.shown}, what is connected {x.type.shown}"
                hint = f"convert on the left: {x.type.shown}({p.name}) => ..." if isinstance(x.type, ArrayType) else ""
                raise self.wrong("type", shown, e, hint)
            return x
        return self.expr(e, p.subtype.type, p.subtype)

    def _converted_actual(self, e: ast.Paren) -> t.X | None:
        return None

    def _join(self, p: Object, formal: ast.Expr, a: ast.Assoc, outer: Scope, inner: Scope) -> None:
        """Connect part of a port, or a port through a conversion."""
        conversion: ast.Paren | None = None
        if isinstance(formal, ast.Paren) and isinstance(formal.prefix, ast.Id) and formal.prefix.name != p.name and len(formal.args) == 1:
            conversion, formal = formal, formal.args[0].value
        place = self.denote(formal)
        assert isinstance(place, t.X)
        _, path = static_prefix(place)
        if conversion is not None:
            made = self._in_scope(inner, lambda: self.expr(conversion))
            x = self._in_scope(outer, lambda: self.expr(a.value, made.type))
            if not self._is_signal(x):
                raise self.wrong("port", f"the output `{p.name}` must be connected to a signal", a.value)
            self.join_value(p, path, x, made, a)
            return
        part = Object(p.name, "signal", place.sub or Subtype(place.type), p.pos, p.py, p.mode, is_port=True)
        x = self._in_scope(outer, lambda: self._actual(part, a.value))
        self._check_port_width(part, x, a)
        self.join_value(p, path, x, None, a, place.sub)

    def join_value(self, p: Object, path: tuple[Any, ...], x: t.X, converted: t.X | None, a: ast.Assoc, sub: Subtype | None = None) -> None:
        """Let a port follow what is connected, or what is connected the port, or both."""
        subtype = sub or p.subtype
        path_text = self.emitter.keep(path)
        if p.mode in ("in", "inout", "linkage") and converted is None:
            roots = [r for r in (static_prefix(s)[0] for s in signals_read(x)) if r is not None]
            self.emit_called(x)
            self._flush()
            text = self.emitter.fitted(x, subtype)
            names = "".join(f"{r.py}, " for r in dict.fromkeys(roots))
            self.joins.append((p, path, x, None, a.pos, True))
            self.setup.append(f"R.join_in({p.py}, {path_text}, ({names}), lambda: {text})")
        if p.mode in ("out", "inout", "buffer"):
            root, target = static_prefix(x)
            if root is None:
                raise self.wrong("port", f"the output `{p.name}` must be connected to a signal", a.value)
            if root.is_port and root.mode == "in":
                raise self.wrong("input", f"the output `{p.name}` drives `{root.name}`, which is an input", a.value)
            root.sources.append((id(p), a.pos, target))
            self._flush()
            self.emitter.names[f"j_{p.py}"] = None
            text = f"R.part({p.py}.driving, {path_text})"
            if converted is not None:
                self.emit_called(converted)
                text = self.emitter.value(converted).replace(f"{p.py}.value", f"{p.py}.driving")
            wanted = x.sub or Subtype(x.type)
            if isinstance(wanted.type, ArrayType) and wanted.ranges is not None:
                text = f"fit_range({text}, {self.emitter.bounds(wanted.ranges[0])}, {a.pos})"
            paths = "None" if not target else self.emitter.keep([target])
            self.joins.append((p, path, x, converted, a.pos, False))
            first = self.emitter.constant(root.value)
            self.setup.append(f"R.join_out({p.py}, R.driver({root.py}, {first}, {paths}), {self.emitter.keep(target)}, lambda: {text})")

    # Units in other languages.

    def _foreign(self, s: ast.Instance, name: str, port_map: Sequence[ast.Assoc], component: Component | None = None) -> None:
        from obento.core.vhdl.foreign import place_foreign

        place_foreign(self, s, name, port_map, component)

    # Attributes that are signals of their own.

    def implicit_signal(self, prefix: t.X, e: ast.Attribute) -> t.X:
        from obento.core.vhdl.standard import BIT, TIME

        if not self._is_signal(prefix):
            raise self.wrong("attribute", f"`'{e.name}` belongs to signals, and this is none", e)
        root, path = static_prefix(prefix)
        assert root is not None
        delay = self.expr(e.arg, TIME) if e.arg is not None else t.Const(TIME, e.pos, 0)
        if not isinstance(delay, t.Const):
            raise self.wrong("constant", "the time of this attribute must be constant", e)
        key = f"{root.py}'{e.name}{path}{delay.value}"
        if key not in self._implicit_signals:
            sub = Subtype(BIT) if e.name == "transaction" else prefix.sub or Subtype(prefix.type)
            if not sub.static():
                raise self.wrong("constant", "the range of this signal must be constant", e)
            o = Object(f"{root.name}'{e.name}", "signal", sub, e.pos, self.emitter.fresh("s"))
            o.value = default_value(sub) if e.name == "transaction" else self._part_value(root.value, path)
            spec = self.emitter.constant(o.value)
            lines = [f"{o.py} = R.signal({o.name!r}, {spec}, None)"]
            source = self.emitter.signal(prefix)
            if e.name == "transaction":
                lines.append(f"R.transaction({o.py}, {source})")
            else:
                lines.append(f"R.delayed({o.py}, {source}, {delay.value})")
            self._flush()
            self.emitter.execute("\n".join(lines) + "\n", o.name, False)
            self._implicit_signals[key] = o
        found = self._implicit_signals[key]
        return t.Read(found.subtype.type, e.pos, found, sub=found.subtype)

    @staticmethod
    def _part_value(value: Any, path: tuple[Any, ...]) -> Any:
        from obento.core.vhdl.run import part_of

        return part_of(value, path)

    def place_of(self, name: str) -> str:
        """Where something is in the hierarchy, as `'path_name` writes it (16.2.5)."""
        levels = ":".join(self._levels)
        scopes = {scope.name for scope in self.scope.chain() if scope.outer is not None}
        region = name in scopes and not any(name in scope.names for scope in self.scope.chain())
        return f":{levels}:" if region else f":{levels}:{name}"

    # The end.

    def _check_drivers(self) -> None:
        """A signal without resolution has one source for each of its parts."""
        from obento.core.vhdl.run import _overlap

        seen: set[str] = set()
        for o in self.objects:
            if o.py in seen:
                continue
            seen.add(o.py)
            if len({source for source, _, _ in o.sources}) < 2 or _is_resolved(o.subtype):
                continue
            for i, (source, pos, path) in enumerate(o.sources):
                for other, other_pos, other_path in o.sources[:i]:
                    if other != source and _overlap(path, other_path):
                        line = self.line(other_pos)
                        text = f"`{o.name}` is driven here and at line {line}, but {o.subtype.shown} allows one driver only"
                        self.collector.error("two-drivers", text, pos, None, "assign it in one process only, or use std_logic")
                        return

    def _undriven_ports(self) -> None:
        """An output that nothing inside drives gives its default value all the same (14.7.3.2)."""
        for p, actual, count in self._joined:
            if len(p.sources) == count and p.mode in ("out", "inout", "buffer"):
                self.setup.append(f"R.driver({p.py}, {self.emitter.constant(p.value)}, None)")
                self._silent_ports = True
                p.sources.append((id(p), p.pos, ()))
            del actual

    def _finish(self) -> None:
        self._undriven_ports()
        self._flush()
        self.design.names = self.names
        pieces = list(self.emitter.pieces)
        names = dict(self.emitter.names)

        def make(run: Run) -> None:
            space = dict(names)
            space["R"] = run
            for i, piece in enumerate(pieces):
                if isinstance(piece, tuple):
                    piece = pieces[i] = compiled(*piece)
                exec(piece, space)  # our own text, made in elaboration

        run = Run(make)
        run.unfit = self._lower()
        run.inputs = [p.signal for p in self.design.ports if p.direction != "out"] + self.outside
        self.design.parts.append(run)

    def _lower(self) -> str:
        """Add the form for lanes; why there is none, if so."""
        before = len(self.design.escapes)
        try:
            if self._implicit_signals or self.outside or not no_drivers_meet(self.objects) or self._silent_ports:
                raise NoLanes("signals that are not only assigned")
            lanes = Lanes(self.design, self, self.limits)
            for p in self.processes:
                lanes.process(p)
            for port, path, x, converted, position, is_input in self.joins:
                if is_input:
                    lanes.join(port, path, x, position)
                else:
                    lanes.join_back(x, port, path, converted, position)
        except NoLanes as reason:
            del self.design.escapes[before:]
            return f"{reason} cannot be run for all cases at once"
        except RecursionError:
            del self.design.escapes[before:]
            return "this nests too deep to be run for all cases at once"
        self.design.processes += lanes.made
        return ""


class _BodyNames(dict[str, list[Any]]):
    """The names of a package body are those of its package and its own."""

    def __init__(self, outer: Scope) -> None:
        super().__init__(outer.names)
        for name, declared in outer.names.items():
            self[name] = declared


def _last_name(e: ast.Expr) -> str:
    return e.name if isinstance(e, ast.Id) else e.suffix if isinstance(e, ast.Selected) else ""


def _specs(block: ast.BlockConfig) -> dict[str, ast.ConfigSpec]:
    """What a configuration says of the instances of an architecture, in its blocks too."""
    found: dict[str, ast.ConfigSpec] = {}
    for item in block.items:
        if isinstance(item, ast.BlockConfig):
            found.update(_specs(item))
            continue
        name = item.component.name if isinstance(item.component, ast.Id) else _last_name(item.component)
        for label in item.labels:
            found[f"{label}:{name}"] = item
    return found


def _through(formals: Sequence[ast.Interface], given: Sequence[ast.Assoc], inner: Sequence[ast.Assoc] | None) -> list[ast.Assoc]:
    """A map of an instance as one by the names of the component; with a binding's own map, by those of the entity."""
    by_name: list[ast.Assoc] = []
    for i, a in enumerate(given):
        if a.choices or i >= len(formals):
            by_name.append(a)
        else:
            by_name.append(ast.Assoc(a.pos, a.end, [ast.Id(a.pos, a.end, formals[i].name)], a.value))
    if inner is None:
        return by_name
    actual = {a.choices[0].name: a for a in by_name if isinstance(a.choices[0], ast.Id)}
    out: list[ast.Assoc] = []
    for a in inner:
        local = a.value.name if isinstance(a.value, ast.Id) else ""
        out.append(ast.Assoc(a.pos, a.end, a.choices, actual[local].value) if local in actual else a)
    return out


def _same_bounds(a: Subtype | None, b: Subtype) -> bool:
    if not isinstance(b.type, ArrayType):
        return True
    if a is None or a.ranges is None or b.ranges is None:
        return False
    return [r.known() for r in a.ranges] == [r.known() for r in b.ranges]


def _is_resolved(s: Subtype) -> bool:
    if s.resolution is not None:
        return True
    if isinstance(s.type, ArrayType):
        return _is_resolved(s.element_subtype)
    return isinstance(s.type, RecordType) and all(_is_resolved(f) for _, f in s.type.fields)


def _shown(o: Object) -> tuple[int, int]:
    width = border.width_of(o.subtype)
    ranges = o.subtype.ranges
    return border.bounds_shown(ranges[0] if ranges and isinstance(o.subtype.type, ArrayType) else None, width)


@cache
def _standard() -> Scope:
    return standard_scope()


def _needs(name: str) -> tuple[str, ...]:
    """The packages that a package of ours uses."""
    if name in ("textio", "env", "math_real", "numeric_bit", "std_logic_textio"):
        return ()
    return ("textio",) if name == "std_logic_1164" else ("std_logic_1164",)


@cache
def _library_part(name: str) -> LibraryPart:
    """Analyse one of our packages; done once, for it never changes."""
    unit = library_package(name)
    collector = Collector()
    maker = Elaborator(World(), collector, Limits(), prefix=f"{name[:1]}{name[-4:]}_".replace("_", ""))
    maker.in_library = True
    outer = maker.unit_scope(unit)
    maker.scope = Scope(outer, name)
    maker.package = name
    maker.declare_all(unit.decls)
    assert not collector.errors, [i.text for i in collector.items()]
    known = Emitter("").names
    names = {k: v for k, v in maker.emitter.names.items() if k not in known and k not in ("R", "__builtins__")}
    return LibraryPart(maker.scope, list(maker.emitter.pieces), names)
