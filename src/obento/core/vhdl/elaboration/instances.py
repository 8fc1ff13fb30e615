"""Uses of entities: components and their binding, configurations, generics (IEEE 1076 clauses 7.3, 11.7 and 3.4)."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.ir.design import Instance
from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.concurrent import Concurrent
from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.analysis.reads import signals_read
from obento.core.vhdl.analysis.type_declarations import TypeDeclarations
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.elaboration.foreign import ForeignUnits
from obento.core.vhdl.elaboration.packages import Packages
from obento.core.vhdl.elaboration.ports import Ports
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Component, LibraryName, Scope
from obento.core.vhdl.model.types import Subtype
from obento.core.vhdl.syntax import ast

"""Gives a fresh Design of the unit in another language that a name means, None when there is none."""


class Instances:
    """Finds what an instance means, and builds it."""

    def __init__(
        self,
        context: Context,
        building: Building,
        names: Names,
        expressions: Expressions,
        types: TypeDeclarations,
        declarations: Declarations,
        concurrent: Concurrent,
        packages: Packages,
        ports: Ports,
        foreign_units: ForeignUnits,
    ) -> None:
        self.context = context
        self.building = building
        self.names = names
        self.expressions = expressions
        self.types = types
        self.declarations = declarations
        self.concurrent = concurrent
        self.packages = packages
        self.ports = ports
        self.foreign_units = foreign_units

    def constant_now(self, x: t.Expr, e: ast.Expr) -> t.Const:
        """The value of a condition or bound that must be constant."""
        if any(signals_read(x)):
            raise self.context.wrong(
                "constant",
                "the condition of a generate must be constant",
                e,
                "a signal is looked at in a process: if ... then",
            )
        return t.Const(x.type, x.pos, self.declarations.worked_out(x, Subtype(x.type)))

    def configure(self, d: ast.ConfigSpec) -> None:
        """Note a configuration specification (7.3)."""
        name = d.component.name if isinstance(d.component, ast.Id) else ""
        for label in d.labels:
            self.building.configured[-1][f"{label}:{name}"] = d

    def _configuration_for(self, label: str, component: str) -> ast.ConfigSpec | None:
        for level in reversed(self.building.configured):
            for key in (label, "all", "others"):
                found = level.get(f"{key}:{component}")
                if found is not None:
                    return found
        return None

    def elaborate(self, s: ast.Instance) -> None:
        """An instance: of a component, an entity or a configuration (11.7)."""
        self.concurrent.label(s.label, s)
        generic_map, port_map = s.generics, s.ports
        if s.kind == "component":
            self._component(s)
            return
        if s.kind == "configuration":
            name = _last_name(s.what)
            configuration = self.building.design_units.configurations.get(name)
            if configuration is None:
                raise self.context.wrong(
                    "undeclared",
                    f"there is no configuration `{name}`",
                    s.what,
                    did_you_mean(name, self.building.design_units.configurations),
                )
            with self.building.configuration(binding_specs(configuration.block)):
                entity = self._entity_named(ast.Id(s.what.pos, s.what.end, configuration.entity))
                assert entity is not None
                self._place(s, entity, configuration.block.name, generic_map, port_map)
            return
        entity = self._entity_named(s.what)
        if entity is None:
            self.foreign_units.place_foreign(s, _last_name(s.what), port_map)
            return
        self._place(s, entity, s.architecture, generic_map, port_map)

    def _entity_named(self, e: ast.Expr) -> ast.Entity | None:
        name = _last_name(e)
        if isinstance(e, ast.Selected) and isinstance(e.prefix, ast.Id):
            library = e.prefix.name
            if not any(isinstance(d, LibraryName) for d in self.context.scope.find(library)):
                raise self.context.wrong(
                    "undeclared",
                    f"the library `{library}` is not declared",
                    e,
                    "entities of the same hand-in are in `work`",
                )
        elif isinstance(e, ast.Id) and e.name not in self.building.design_units.entities:
            raise self.context.wrong(
                "undeclared",
                f"there is no entity `{name}`",
                e,
                did_you_mean(name, self.building.design_units.entities) or "write entity work.name",
            )
        found = self.building.design_units.entities.get(name)
        if (
            found is None
            and self.building.foreign is not None
            and not did_you_mean(name, self.building.design_units.entities)
        ):
            return None
        if found is None:
            hint = did_you_mean(name, self.building.design_units.entities)
            raise self.context.wrong(
                "undeclared",
                f"there is no entity `{name}` among these files",
                e,
                hint or "hand in the file that has it",
            )
        return found

    def _component(self, s: ast.Instance) -> None:
        found = self.names.denote(s.what)
        if not isinstance(found, Component):
            name = _last_name(s.what)
            raise self.context.wrong("undeclared", f"`{name}` is no component", s.what)
        spec = self._configuration_for(s.label, found.name)
        name, architecture, inner_map, inner_generics = found.name, "", None, None
        if spec is not None and spec.binding is not None:
            b = spec.binding
            if b.configuration is not None:
                configuration = self.building.design_units.configurations.get(_last_name(b.configuration))
                if configuration is None:
                    raise self.context.wrong(
                        "undeclared", f"there is no configuration `{_last_name(b.configuration)}`", b
                    )
                name, architecture = configuration.entity, configuration.block.name
            elif b.entity is not None:
                name, architecture = _last_name(b.entity), b.architecture
            else:
                return
            inner_map, inner_generics = b.ports or None, b.generics or None
        self._check_formals(s.ports, [p.name for p in found.node.ports], found.name, "port", s)
        self._check_formals(s.generics, [g.name for g in found.node.generics], found.name, "generic", s)
        entity = self.building.design_units.entities.get(name)
        if entity is None:
            if self.building.foreign is not None:
                self.foreign_units.place_foreign(s, name, s.ports, found)
                return
            hint = did_you_mean(name, self.building.design_units.entities) or "hand in the file that has it"
            raise self.context.wrong("unbound", f"there is no entity `{name}` for this component", s.what, hint)
        ports = _through(found.node.ports, s.ports, inner_map)
        generics = _through(found.node.generics, s.generics, inner_generics)
        if inner_map is None:
            self._compare_component(found.node, entity, s)
        if spec is None or spec.inner is None:
            self._place(s, entity, architecture, generics, ports, found.node)
            return
        with self.building.configuration(binding_specs(spec.inner)):
            self._place(s, entity, architecture or spec.inner.name, generics, ports, found.node)

    def _compare_component(self, component: ast.ComponentDecl, entity: ast.Entity, s: ast.Instance) -> None:
        """Default binding wants the same names in both (7.3.3)."""
        theirs = {p.name for p in entity.ports}
        for p in component.ports:
            if p.name not in theirs:
                hint = did_you_mean(p.name, theirs)
                raise self.context.wrong(
                    "port", f"the component has a port `{p.name}` that the entity `{entity.name}` has not", p, hint
                )

    def _check_formals(
        self, given: Sequence[ast.Assoc], names: Sequence[str], unit: str, what: str, s: ast.Instance
    ) -> None:
        for a in given:
            if not a.choices:
                continue
            formal = a.choices[0]
            while (
                isinstance(formal, ast.Paren)
                and not (isinstance(formal.prefix, ast.Id) and formal.prefix.name in names)
                and len(formal.args) == 1
            ):
                formal = formal.args[0].value
            while isinstance(formal, ast.Paren | ast.Selected):
                formal = formal.prefix
            if isinstance(formal, ast.Id) and formal.name not in names:
                hint = did_you_mean(formal.name, names) or f"it has {', '.join(names)}"
                raise self.context.wrong(what, f"`{unit}` has no {what} `{formal.name}`", formal, hint)
        if sum(not a.choices for a in given) > len(names):
            raise self.context.wrong(what, f"`{unit}` has {len(names)} {what}s, but {len(given)} are given", s)

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
        body = self.building.units.architecture_of(entity, architecture, s)
        given = self._given_generics(entity, generic_map, component)
        outer_scope = self.context.scope
        with self.building.instance_below(Instance(s.label, entity.name, s.pos)):
            self.building.units.build(
                entity, body, s.label, given, lambda ports: self.ports.connect(ports, port_map, s, outer_scope)
            )

    def _given_generics(
        self, entity: ast.Entity, generic_map: Sequence[ast.Assoc], component: ast.ComponentDecl | None
    ) -> dict[str, t.Expr]:
        given: dict[str, t.Expr] = {}
        types = self._generic_types(entity)
        for i, a in enumerate(generic_map):
            name = a.choices[0].name if a.choices and isinstance(a.choices[0], ast.Id) else entity.generics[i].name
            if isinstance(a.value, ast.Open) or name not in types:
                continue
            x = self.expressions.expr(a.value, types[name].type, types[name])
            given[name] = x if isinstance(x, t.Const) else self.constant_now(x, a.value)
        if component is not None:
            for g in component.generics:
                if g.name not in given and g.default is not None and g.name in types:
                    x = self.expressions.expr(g.default, types[g.name].type)
                    given[g.name] = x if isinstance(x, t.Const) else self.constant_now(x, g.default)
        return given

    def _generic_types(self, entity: ast.Entity) -> dict[str, Subtype]:
        """The generics' types without constraints, which may depend on other generics."""
        if not entity.generics:
            return {}
        with self.context.aside(scope=Scope(self.packages.unit_scope(entity))):
            return {g.name: Subtype(self.types.marked(g.subtype.mark).type) for g in entity.generics}


def _last_name(e: ast.Expr) -> str:
    return e.name if isinstance(e, ast.Id) else e.suffix if isinstance(e, ast.Selected) else ""


def binding_specs(block: ast.BlockConfig) -> dict[str, ast.ConfigSpec]:
    """What a configuration says of the instances of an architecture, in its blocks too."""
    found: dict[str, ast.ConfigSpec] = {}
    for item in block.items:
        if isinstance(item, ast.BlockConfig):
            found.update(binding_specs(item))
            continue
        name = item.component.name if isinstance(item.component, ast.Id) else _last_name(item.component)
        for label in item.labels:
            found[f"{label}:{name}"] = item
    return found


def _through(
    formals: Sequence[ast.Interface], given: Sequence[ast.Assoc], inner: Sequence[ast.Assoc] | None
) -> list[ast.Assoc]:
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
