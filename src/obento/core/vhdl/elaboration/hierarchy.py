"""From design units to what runs: packages, entities with their generics and ports, instances, generate (IEEE 1076 clause 14)."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from threading import RLock
from typing import Any

from obento.core.diagnostics import Collector
from obento.core.ir.design import Design, Instance, Port, ScopeOfNames, Variable
from obento.core.ir.signal import Signal
from obento.core.limits import LimitReached, Limits
from obento.core.source import Sources
from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.declarations import range_of
from obento.core.vhdl.analysis.forgotten import never_assigned, read_too_early
from obento.core.vhdl.analysis.names import Wrong
from obento.core.vhdl.analysis.statements import static_prefix
from obento.core.vhdl.code.statements import Emitter, compiled
from obento.core.vhdl.design_library import LIBRARIES, TAUGHT, World, library_package
from obento.core.vhdl.elaboration.foreign import place
from obento.core.vhdl.elaboration.generate_and_blocks import Regions
from obento.core.vhdl.elaboration.instances import Foreign, binding_specs
from obento.core.vhdl.lanes.processes import Lanes, no_drivers_meet
from obento.core.vhdl.lanes.values import NoLanes
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Component, LibraryName, Object, PackageName, Scope, Subprogram
from obento.core.vhdl.model.types import ArrayType, EnumType, RecordType, Subtype, default_value
from obento.core.vhdl.packages.standard import BIT, TIME, standard_scope
from obento.core.vhdl.runtime import four_state as border
from obento.core.vhdl.runtime.composites import overlap, part_of
from obento.core.vhdl.runtime.run import SEVERITIES, Report, Run
from obento.core.vhdl.syntax import ast


class _Bench:
    """What elaboration may use of a bench: files to read. What is reported while constants are worked out is kept for the run."""

    def __init__(self, folder: Any) -> None:
        self.folder = folder
        self.reports: list[Report] = []

    def say(self, text: str, position: int) -> None:
        """A line on the console."""
        self.reports.append((-1, text, position))

    def report(self, severity: str, text: str, position: int) -> None:
        """A report or a failed assertion; none of them ends the elaboration."""
        self.reports.append((SEVERITIES.index(severity), text, position))

    def came_to(self, position: int) -> None:
        """An assertion is looked at."""

    def ended(self, position: int) -> None:
        """The statement that would end a run."""


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


_ALONE = RLock()
"""Held while a design is built: the types of our packages are shared by all, and know for a while what a design makes of them."""


@dataclass(slots=True)
class LibraryPart:
    """One of our packages, analysed once for all."""

    scope: Scope
    pieces: list[Any]
    names: dict[str, Any] = field(default_factory=dict)


class Elaborator(Regions):
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
        self.in_body = False
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
        self.joins: list[tuple[Object, tuple[Any, ...], t.Expr, t.Expr | None, int, bool]] = []
        self._silent_ports = False
        self.outside: list[Signal] = []
        self.names: list[ScopeOfNames] = []
        self.design = Design("", "vhdl", precision=-15)
        self.instance = Instance("", "", 0)
        live = Run(lambda run: None)
        self._early = bench = _Bench(folder)
        live.failing = len(SEVERITIES)
        live.host = _Host(limits, bench, lambda: False)  # type: ignore[assignment]
        live.files = type(live.files)(bench)
        self.emitter.live["R"] = live

    def line(self, position: int) -> int:
        return self.sources.place(position).line if self.sources is not None else 0

    def package_alone(self, name: str, node: ast.Node) -> None:
        """Analyse a package that nobody uses; what is wrong with it is reported."""
        with _ALONE:
            try:
                self.package_named("work", name, node)
            except Wrong:
                return
            except LimitReached as limit:
                self.collector.error("limit", limit.text, limit.position, None, limit.hint)
            finally:
                self._forget_arrays()

    def _forget_arrays(self) -> None:
        """Take the array types of this design out of the element types that all designs share."""
        for enum_type, count in reversed(self._arrays):
            del enum_type.arrays[count:]
        self._arrays.clear()

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
        in_body, self.in_body = self.in_body, False
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
                self.in_body = True
                self.declare_all(body.decls)
            self._check_bodies(made, unit, body)
            self.emit_pending()
        finally:
            self.scope, self.package, self.process, self.subprogram, self.pending, self._open_loops = saved
            self._depth, self._memo, self.in_body = depth, memo, in_body
        return made

    def _check_bodies(self, made: PackageName, unit: ast.Package, body: ast.PackageBody | None) -> None:
        for names in made.scope.names.values():
            for f in names:
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
        """A whole design from its top entity; None when something is wrong (reported). Threads wait for each other."""
        with _ALONE:
            return self._top(name)

    def _top(self, name: str) -> Design | None:
        entity = self.world.entities[name]
        errors = self.collector.errors
        self.design.unit = name
        self.instance = self.design.root = Instance(name, name, entity.name_pos)
        try:
            wanted = ""
            chosen = [c for c in self.world.configurations.values() if c.entity == name]
            if len(chosen) == 1:  # a configuration of the whole, handed in with it, is meant to be used
                wanted = chosen[0].block.name
                self._configured.append(binding_specs(chosen[0].block))
            self.build(entity, self.architecture_of(entity, wanted, entity), name, {}, None)
        except Wrong:
            pass
        except LimitReached as limit:
            self.collector.error("limit", limit.text, limit.position, None, limit.hint)
        except RecursionError:
            self.collector.error("too-deep", "this is nested too deep to be built", entity.name_pos)
        finally:
            self._forget_arrays()
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

    def architecture_of(self, entity: ast.Entity, wanted: str, node: ast.Node) -> ast.Architecture:
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

    def build(
        self,
        entity: ast.Entity,
        architecture: ast.Architecture,
        label: str,
        generics: Mapping[str, t.Expr],
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

    def _generics(self, generics: Sequence[ast.Interface], given: Mapping[str, t.Expr]) -> None:
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
        signal = self.design.add_signal(self.path_below(o.name), width, "variable", o.pos)
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

    def finish_process(self, p: t.Process) -> None:
        self.processes.append(p)
        p.path = ".".join(self._levels)
        for d in p.decls:
            if isinstance(d, t.DeclareSub):
                self.settle_waits(d.subprogram)
        for name in (*p.calls,):
            self.emit_subprogram(name)
        self.flush()
        self.emitter.process(p, ".".join([*self._levels, p.name]))

    def flush(self) -> None:
        """Signals set up so far come before what uses them."""
        if self.setup:
            self.emitter.execute("\n".join(self.setup) + "\n", "signals", False)
            self.setup = []

    # Units in other languages.

    def place_foreign(self, s: ast.Instance, name: str, port_map: Sequence[ast.Assoc], component: Component | None = None) -> None:
        place(self, s, name, port_map, component)

    # Attributes that are signals of their own.

    def implicit_signal(self, prefix: t.Expr, e: ast.Attribute) -> t.Expr:
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
            self.flush()
            self.emitter.execute("\n".join(lines) + "\n", o.name, False)
            self._implicit_signals[key] = o
        found = self._implicit_signals[key]
        return t.Read(found.subtype.type, e.pos, found, sub=found.subtype)

    @staticmethod
    def _part_value(value: Any, path: tuple[Any, ...]) -> Any:
        return part_of(value, path)

    def path_below(self, name: str) -> str:
        """A name with the levels of the hierarchy that it stands in, the top left out."""
        return ".".join([*self._levels[1:], name])

    def place_of(self, name: str) -> str:
        """Where something is in the hierarchy, as `'path_name` writes it (16.2.5)."""
        levels = ":".join(self._levels)
        scopes = {scope.name for scope in self.scope.chain() if scope.outer is not None}
        region = name in scopes and not any(name in scope.names for scope in self.scope.chain())
        return f":{levels}:" if region else f":{levels}:{name}"

    # The end.

    def _check_drivers(self) -> None:
        """A signal without resolution has one source for each of its parts."""
        seen: set[str] = set()
        for o in self.objects:
            if o.py in seen:
                continue
            seen.add(o.py)
            if len({source for source, _, _ in o.sources}) < 2 or _is_resolved(o.subtype):
                continue
            for i, (source, pos, path) in enumerate(o.sources):
                for other, other_pos, other_path in o.sources[:i]:
                    if other != source and overlap(path, other_path):
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
        self.flush()
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
        run.early = self._early.reports
        run.unfit = self._lower()
        run.inputs = [p.signal for p in self.design.ports if p.direction != "out"] + self.outside
        self.design.parts.append(run)

    def _lower(self) -> str:
        """Add the form for lanes; why there is none, if so."""
        escapes, kept = len(self.design.escapes), len(self.design.kept)
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
            made = lanes.in_order()
        except NoLanes as reason:
            del self.design.escapes[escapes:], self.design.kept[kept:]
            return f"{reason} cannot be run for all cases at once"
        except RecursionError:
            del self.design.escapes[escapes:], self.design.kept[kept:]
            return "this nests too deep to be run for all cases at once"
        self.design.processes += made
        return ""


class _BodyNames(dict[str, list[Any]]):
    """The names of a package body are those of its package and its own."""

    def __init__(self, outer: Scope) -> None:
        super().__init__(outer.names)
        for name, declared in outer.names.items():
            self[name] = declared


def _is_resolved(s: Subtype) -> bool:
    if s.resolution is not None:
        return True
    if isinstance(s.type, ArrayType):
        return _is_resolved(s.element_subtype)
    return isinstance(s.type, RecordType) and all(_is_resolved(f) for _, f in s.type.fields)


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
