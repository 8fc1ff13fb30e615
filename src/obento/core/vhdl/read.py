"""VHDL files to a world of design units, and which units use which."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.pause import collector_held
from obento.core.source import SourceFile
from obento.core.suggest import did_you_mean
from obento.core.vhdl import ast
from obento.core.vhdl.units import parse
from obento.core.vhdl.world import World


def read_world(files: Iterable[SourceFile], collector: Collector, limits: Limits) -> World:
    """Parse all files; their order does not matter."""
    world = World()
    with collector_held():
        for file in files:
            world.add(parse(file, collector, limits), collector)
    for name, architectures in world.architectures.items():
        if name not in world.entities:
            for a in architectures:
                text = f"the architecture `{a.name}` belongs to an entity `{name}` that is not here"
                collector.error("no-entity", text, a.name_pos, a.name_pos + len(a.name), did_you_mean(name, world.entities))
    return world


def entities_used(world: World, name: str) -> set[str]:
    """Names of the units that an entity has instances of, in any of its architectures."""
    found: set[str] = set()
    for architecture in world.architectures.get(name, []):
        for instance in _instances(architecture.body):
            what = instance.what
            found.add(what.name if isinstance(what, ast.Id) else what.suffix if isinstance(what, ast.Selected) else "")
        found |= _bound(architecture.decls)
    for configuration in world.configurations.values():
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
        found.add(entity.name if isinstance(entity, ast.Id) else entity.suffix if isinstance(entity, ast.Selected) else "")
    if d.inner is not None:
        found |= _bound_in(d.inner)
    return found


def _bound_in(block: ast.BlockConfig) -> set[str]:
    found: set[str] = set()
    for item in block.items:
        found |= _bound_spec(item) if isinstance(item, ast.ConfigSpec) else _bound_in(item)
    return found


def top_entities(world: World) -> list[str]:
    """Entities that no other one uses, in the order of the texts."""
    used: set[str] = set()
    for name in world.entities:
        used |= entities_used(world, name) - {name}
    return [name for name in world.entities if name not in used]
