"""Which VHDL units use which, and whether it is said which architecture is meant."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from obento.core.diagnostics import Collector
from obento.core.suggest import did_you_mean
from obento.core.vhdl.design_units import DesignUnits
from obento.core.vhdl.syntax import ast


def check_design_units(design_units: DesignUnits, collector: Collector) -> None:
    """Say which architectures have no entity."""
    for name, architectures in design_units.architectures.items():
        if name not in design_units.entities:
            for a in architectures:
                text = f"the architecture `{a.name}` belongs to an entity `{name}` that is not here"
                collector.error(
                    "no-entity", text, a.name_pos, a.name_pos + len(a.name), did_you_mean(name, design_units.entities)
                )


def architecture_is_named(design_units: DesignUnits, name: str, users: Sequence[str]) -> bool:
    """Whether it is said which architecture of an entity is meant: by a configuration of its own where nothing places
    it, else wherever the entities `users` place it."""
    if not any(name in entities_used(design_units, u) for u in users):
        return sum(c.entity == name for c in design_units.configurations.values()) == 1
    bound = {b for c in design_units.configurations.values() for b in _architectures_in(c.block)}
    for user in users:
        for architecture in design_units.architectures.get(user, []):
            bound |= {b for d in architecture.decls if isinstance(d, ast.ConfigSpec) for b in _architectures_of(d)}
    bound |= {c.entity for c in design_units.configurations.values() if c.name in bound}
    placed = [
        i
        for u in users
        for a in design_units.architectures.get(u, [])
        for i in _instances(a.body)
        if _last(i.what) == name
    ]
    return all(i.architecture or i.kind == "configuration" or (i.kind == "component" and name in bound) for i in placed)


def _last(what: ast.Expr) -> str:
    return what.name if isinstance(what, ast.Id) else what.suffix if isinstance(what, ast.Selected) else ""


def _architectures_of(d: ast.ConfigSpec) -> set[str]:
    """Entities that a specification binds with a named architecture, or by a configuration of their own."""
    b = d.binding
    found = {_last(b.entity)} if b is not None and b.entity is not None and b.architecture else set()
    if b is not None and b.configuration is not None:
        found.add(_last(b.configuration))
    return found | (_architectures_in(d.inner) if d.inner is not None else set())


def _architectures_in(block: ast.BlockConfig) -> set[str]:
    return {
        name
        for item in block.items
        for name in (_architectures_of(item) if isinstance(item, ast.ConfigSpec) else _architectures_in(item))
    }


def entities_used(design_units: DesignUnits, name: str) -> set[str]:
    """Names of the units that an entity has instances of, in any of its architectures."""
    found: set[str] = set()
    for architecture in design_units.architectures.get(name, []):
        for instance in _instances(architecture.body):
            found.add(_last(instance.what))
        found |= _bound(architecture.decls)
    for configuration in design_units.configurations.values():
        if configuration.entity == name:
            found |= _bound_in(configuration.block)
    return found


def _instances(body: Sequence[ast.Concurrent]) -> Iterable[ast.Instance]:
    for s in body:
        if isinstance(s, ast.Instance):
            yield s
        elif isinstance(s, ast.Call) and s.label and isinstance(s.name, ast.Id):
            yield ast.Instance(s.pos, s.end, s.label, "component", s.name, "", [], [])
        elif isinstance(s, ast.Block):
            yield from _instances(s.body)
        elif isinstance(s, ast.Generate):
            for arm in s.arms:
                yield from _instances(arm.body)


def _bound(decls: Sequence[ast.Decl]) -> set[str]:
    return {n for d in decls if isinstance(d, ast.ConfigSpec) for n in _bound_spec(d)}


def _bound_spec(d: ast.ConfigSpec) -> set[str]:
    found: set[str] = set()
    entity = d.binding.entity if d.binding is not None else None
    if entity is not None:
        found.add(_last(entity))
    if d.inner is not None:
        found |= _bound_in(d.inner)
    return found


def _bound_in(block: ast.BlockConfig) -> set[str]:
    found: set[str] = set()
    for item in block.items:
        found |= _bound_spec(item) if isinstance(item, ast.ConfigSpec) else _bound_in(item)
    return found


def top_entities(design_units: DesignUnits) -> list[str]:
    """Entities that no other one uses, in the order of the texts."""
    used: set[str] = set()
    for name in design_units.entities:
        used |= entities_used(design_units, name) - {name}
    return [name for name in design_units.entities if name not in used]
