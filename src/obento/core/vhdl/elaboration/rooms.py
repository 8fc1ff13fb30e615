"""The rooms of analysis and elaboration, put together for one design."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.vhdl.analysis.aggregates import Aggregates
from obento.core.vhdl.analysis.attributes import Attributes
from obento.core.vhdl.analysis.concurrent import Concurrent
from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.analysis.operators import Operators
from obento.core.vhdl.analysis.statements import Statements
from obento.core.vhdl.analysis.type_declarations import TypeDeclarations
from obento.core.vhdl.code.statements import Emitter
from obento.core.vhdl.design_units import DesignUnits, library_package
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.elaboration.design_signals import DesignSignals
from obento.core.vhdl.elaboration.early_run import EarlyBench, early_run
from obento.core.vhdl.elaboration.foreign import ForeignUnits
from obento.core.vhdl.elaboration.generate_and_blocks import Regions
from obento.core.vhdl.elaboration.instances import Instances
from obento.core.vhdl.elaboration.packages import Library, LibraryPart, Packages
from obento.core.vhdl.elaboration.ports import Ports
from obento.core.vhdl.elaboration.processes import Processes
from obento.core.vhdl.elaboration.units import Units
from obento.core.vhdl.model.scope import Scope
from obento.core.vhdl.packages.standard import standard_scope


@dataclass(frozen=True, slots=True)
class Rooms:
    """What is called from outside; the other rooms are reached through these and through the context."""

    declarations: Declarations
    packages: Packages
    units: Units


def put_together(context: Context, building: Building, library: Library) -> Rooms:
    """Make every room over the ones below it, and tell the context who answers for those above."""
    names = Names(context)
    operators = Operators(context, names)
    attributes = Attributes(context, names)
    expressions = Expressions(context, names, operators, attributes, Aggregates(context, names))
    types = TypeDeclarations(context, names, expressions)
    declarations = Declarations(context, names, expressions, types)
    statements = Statements(context, names, expressions, declarations)
    concurrent = Concurrent(context, names, types, declarations, statements)
    packages = Packages(context, building, declarations, library)
    signals = DesignSignals(context, building, names, expressions)
    processes = Processes(context, building, declarations)
    ports = Ports(context, building, names, expressions, declarations)
    foreign_units = ForeignUnits(context, building, names, expressions, types, declarations, signals, ports)
    instances = Instances(
        context, building, names, expressions, types, declarations, concurrent, packages, ports, foreign_units
    )
    regions = Regions(context, building, expressions, types, declarations, statements, concurrent, ports, instances)
    units = Units(
        context, building, expressions, types, declarations, concurrent, packages, signals, instances, regions
    )
    context.expressions, context.subtypes, context.declarations, context.bodies = (
        expressions,
        types,
        declarations,
        statements,
    )
    context.packages, context.signals, context.processes, context.instances = packages, signals, processes, instances
    building.units = units
    return Rooms(declarations, packages, units)


@cache
def _standard() -> Scope:
    return standard_scope()


@cache
def library_part(name: str) -> LibraryPart:
    """One of our packages, analysed; done once, for it never changes."""
    unit = library_package(name)
    collector = Collector()
    emitter = Emitter(f"{name[:1]}{name[-4:]}_".replace("_", ""))
    emitter.live["R"] = early_run(Limits(), EarlyBench(None))
    context = Context(collector, Limits(), None, emitter)
    rooms = put_together(context, Building(DesignUnits(), None), Library(_standard(), library_part))
    context.in_library = True
    context.scope = Scope(rooms.packages.unit_scope(unit), name)
    context.package = name
    rooms.declarations.declare_all(unit.decls)
    assert not collector.errors, [i.text for i in collector.items()]
    known = Emitter("").names
    names = {k: v for k, v in emitter.names.items() if k not in known and k not in ("R", "__builtins__")}
    return LibraryPart(context.scope, list(emitter.pieces), names)
