"""Entities with their architectures (IEEE 1076 clauses 3 and 14.3)."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from obento.core.limits import LimitReached
from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.concurrent import Concurrent
from obento.core.vhdl.analysis.context import AnalysisError, Context
from obento.core.vhdl.analysis.declarations import Declarations, range_of
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.type_declarations import TypeDeclarations
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.elaboration.design_signals import DesignSignals
from obento.core.vhdl.elaboration.generate_and_blocks import Regions
from obento.core.vhdl.elaboration.instances import Instances
from obento.core.vhdl.elaboration.packages import Packages
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Component, Object, Scope
from obento.core.vhdl.model.types import ArrayType, Subtype
from obento.core.vhdl.syntax import ast


class Units:
    """Builds one entity below another."""

    def __init__(
        self,
        context: Context,
        building: Building,
        expressions: Expressions,
        types: TypeDeclarations,
        declarations: Declarations,
        concurrent: Concurrent,
        packages: Packages,
        signals: DesignSignals,
        instances: Instances,
        regions: Regions,
    ) -> None:
        self.context = context
        self.building = building
        self.expressions = expressions
        self.types = types
        self.declarations = declarations
        self.concurrent = concurrent
        self.packages = packages
        self.signals = signals
        self.instances = instances
        self.regions = regions

    def architecture_of(self, entity: ast.Entity, wanted: str, node: ast.Node) -> ast.Architecture:
        """The architecture of that name, or the last one; reported where there is none."""
        known = self.building.design_units.architectures.get(entity.name, [])
        if wanted:
            for a in known:
                if a.name == wanted:
                    return a
            raise self.context.wrong(
                "undeclared",
                f"`{entity.name}` has no architecture `{wanted}`",
                node,
                did_you_mean(wanted, (a.name for a in known)),
            )
        if not known:
            near = did_you_mean(entity.name, self.building.design_units.architectures)
            pos = entity.name_pos
            where = ast.Node(pos, pos + len(entity.name))
            raise self.context.wrong(
                "no-architecture",
                f"the entity `{entity.name}` has no architecture",
                where,
                near or "add: architecture rtl of ...",
            )
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
        self.building.instances += 1
        if self.building.instances > self.context.limits.instances:
            raise LimitReached(f"more than {self.context.limits.instances} instances", entity.name_pos)
        if len(self.building.levels) > self.context.limits.instance_depth:
            raise LimitReached("instances nest too deep", entity.name_pos, "does an entity use itself?")
        scope = Scope(self.packages.unit_scope(entity), entity.name)
        with (
            self.context.aside(scope=scope, pending=[], process=None, subprogram=None),
            self.building.level(label, "module", f"{entity.name}({architecture.name})"),
        ):
            self.declare_generics(entity.generics, generics)
            ports = self.declare_ports(entity.ports, connect is None)
            if connect is not None:
                connect(ports)
            self.declarations.declare_all(entity.decls)
            self.packages.use_context(self.context.scope, architecture)
            with self.context.aside(scope=Scope(scope, architecture.name)), self.building.configuration({}):
                self.build_body(architecture.decls, [*entity.body, *architecture.body])
        return ports

    def build_body(self, decls: Sequence[ast.Decl], body: Sequence[ast.Concurrent]) -> None:
        """Declarations, then concurrent statements; one that is wrong is left out."""
        self.declarations.declare_all(decls)
        self.declarations.emit_pending()
        for s in body:
            try:
                self._concurrent(s)
            except AnalysisError:
                continue

    def declare_generics(self, generics: Sequence[ast.Interface], given: Mapping[str, t.Expr]) -> None:
        """Generics with the values that they are given, or their defaults."""
        for g in generics:
            subtype = self.types.subtype(g.subtype)
            value = given.get(g.name)
            if value is None:
                if g.default is None:
                    hint = (
                        "give it a default value, since it stands at the top"
                        if len(self.building.levels) == 1
                        else "give it in the generic map"
                    )
                    raise self.context.wrong("generic", f"the generic `{g.name}` has no value", g, hint)
                value = self.expressions.expr(g.default, subtype.type, subtype)
            o = Object(g.name, "constant", subtype, g.pos, self.context.emitter.fresh("g"))
            o.value = self.declarations.worked_out(value, subtype)
            o.known = True
            if isinstance(subtype.type, ArrayType) and subtype.ranges is None:
                o.subtype = Subtype(subtype.type, [range_of(o.value, subtype.type)])
            self.types.add(g.name, o, g)
            self.signals.note_place(o)

    def declare_ports(self, ports: Sequence[ast.Interface], outermost: bool) -> list[Object]:
        """Ports as signals; those of the outermost entity are ports of the design."""
        made: list[Object] = []
        for p in ports:
            subtype = self.types.subtype(p.subtype)
            if isinstance(subtype.type, ArrayType) and subtype.ranges is None and outermost:
                raise self.context.wrong(
                    "unconstrained", f"the port `{p.name}` needs its range", p, "write for instance (7 downto 0)"
                )
            value = self.expressions.expr(p.default, subtype.type, subtype) if p.default is not None else None
            o = Object(
                p.name,
                "signal",
                subtype,
                p.pos,
                self.context.emitter.fresh("s"),
                p.mode or "in",
                is_port=True,
                default=value,
            )
            if subtype.static():
                o.value = self.declarations.first_value(value, subtype)
            self.types.add(p.name, o, p)
            self.signals.note_place(o)
            if outermost:
                self.declarations.set_up_signal(o)
                self.signals.design_port(o)
            made.append(o)
        return made

    def _concurrent(self, s: ast.Concurrent) -> None:
        match s:
            case ast.Process():
                self.concurrent.process_statement(s)
            case ast.SignalAssign():
                self.concurrent.assignment(s)
            case ast.Assert():
                self.concurrent.concurrent_assertion(s)
            case ast.Call():
                self._call_or_instance(s)
            case ast.Instance():
                self.instances.elaborate(s)
            case ast.Generate():
                self.regions.generate(s)
            case ast.Block():
                self.regions.block(s)

    def _call_or_instance(self, s: ast.Call) -> None:
        """`label : name;` is an instance when the name is that of a component."""
        name = s.name.prefix if isinstance(s.name, ast.Paren) else s.name
        if s.label and isinstance(name, ast.Id):
            found = self.context.scope.find(name.name)
            if found and isinstance(found[0], Component):
                if isinstance(s.name, ast.Paren):
                    raise self.context.wrong(
                        "port-map",
                        "`port map` is missing before the connections",
                        s,
                        f"write: {s.label} : {name.name} port map (...)",
                    )
                self.instances.elaborate(ast.Instance(s.pos, s.end, s.label, "component", name, "", [], []))
                return
        self.concurrent.concurrent_call(s)
