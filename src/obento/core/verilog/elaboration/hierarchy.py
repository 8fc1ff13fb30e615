"""Modules to a Design (IEEE 1364-2005 clause 12): the way in."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from obento.core.diagnostics import Collector
from obento.core.ir.design import Design, Process
from obento.core.ir.resolve import resolve_drivers
from obento.core.ir.seldom_meant import states_and_clocks
from obento.core.ir.signal import Signal
from obento.core.limits import LimitReached, Limits
from obento.core.verilog.elaboration.module_body import instantiate, package
from obento.core.verilog.elaboration.module_context import Given, ModuleContext
from obento.core.verilog.elaboration.ports import flat_ports, ports_of
from obento.core.verilog.elaboration.warnings import warn_about
from obento.core.verilog.lowering.variable_drivers import check_variable_drivers
from obento.core.verilog.model.builder import Builder, Foreign
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Inside, Scope
from obento.core.verilog.syntax import ast


def elaborate(
    modules: Mapping[str, ast.Module | ast.Primitive],
    unit: str,
    collector: Collector,
    limits: Limits,
    foreign: Foreign | None = None,
    packages: Mapping[str, ast.Package] | None = None,
) -> Design | None:
    """The Design of one module with all it uses; None when something is wrong with it (reported)."""
    return elaborate_tops(modules, [unit], collector, limits, foreign, packages)


def elaborate_tops(
    modules: Mapping[str, ast.Module | ast.Primitive],
    tops: Sequence[str],
    collector: Collector,
    limits: Limits,
    foreign: Foreign | None = None,
    packages: Mapping[str, ast.Package] | None = None,
) -> Design | None:
    """A Design of several modules side by side, as benches may be (12.1.1); its ports are those of the first.

    Parameters
    ----------
    modules
        All modules of the hand-in, by name.
    tops
        Names of those that stand side by side.
    foreign
        Gives units in other languages by name.
    packages
        All packages of the hand-in, by name; under `$unit` what is declared outside of everything.
    """
    errors = collector.errors
    design = Design(tops[0], "verilog")
    packages = packages or {}
    builder = Builder(modules, packages, design, collector, limits, foreign)
    builder.package = lambda name: package(builder, name)
    try:
        _require_few_uses(modules, tops, limits)
        bodies: list[ModuleContext] = []
        above = Scope("")
        texts = [m for m in (*modules.values(), *packages.values()) if isinstance(m, ast.Module | ast.Package)]
        above.reals = any(text.reals for text in texts)
        above.texts = any(text.texts for text in texts)
        builder.package("$unit")
        for name in tops:
            module = modules[name]
            assert isinstance(module, ast.Module)
            bodies.append(instantiate(builder, module, name, above, Given(), 0))
            above.entries[name] = Inside(bodies[-1].scope, module.name_start)
        builder.finish()
        check_variable_drivers(design, builder.variables, collector)
        design.root = bodies[0].instance
        design.names = [body.shown for body in bodies]
        if collector.errors > errors:
            return None
        design.ports = flat_ports(bodies[0], ports_of(bodies[0]))
    except ElaborationError:
        return None
    except LimitReached as limit:
        collector.error("limit", limit.text, limit.position, None, limit.hint)
        return None
    warn_about(design, builder.implied, collector)
    for seldom in states_and_clocks(design):
        collector.warning(seldom.code, seldom.text, seldom.position, None, seldom.hint)
    try:
        resolve_drivers(design, lambda signal, a, b: _two_drivers(collector, signal, a, b))
    except LimitReached as limit:
        collector.error("limit", limit.text, limit.position, None, limit.hint)
        return None
    return design


def _require_few_uses(modules: Mapping[str, ast.Module | ast.Primitive], tops: Sequence[str], limits: Limits) -> None:
    """Raise `LimitReached` where modules that use others several times, level by level, come to more than can be built:
    counted by their plain uses alone, which is told at once."""
    known: dict[str, int] = {}

    def uses(name: str, above: frozenset[str]) -> int:
        module = modules.get(name)
        if name in known or not isinstance(module, ast.Module) or name in above or len(above) > limits.instance_depth:
            return known.get(name, 1)
        total = 1
        for item in module.items:
            if isinstance(item, ast.Instance):
                total += uses(item.module, above | {name})
                if total > limits.instances:
                    raise LimitReached(
                        f"`{item.module}` is used too often: there are more than {limits.instances} instances",
                        item.start,
                        "does every module use the next one more than once?",
                    )
        known[name] = total
        return total

    for top in tops:
        uses(top, frozenset())


def _two_drivers(collector: Collector, signal: Signal, first: Process, second: Process) -> None:
    del first
    if signal.net == "uwire":
        collector.error(
            "two-drivers",
            f"`{signal.name.rpartition('.')[2]}` is a `uwire`, which takes one driver (1800 clause 6.6.2)",
            second.position,
            None,
            "drive it from one place",
        )
        return
    collector.warning(
        "two-drivers",
        f"`{signal.name.rpartition('.')[2]}` is driven from two places: where they disagree it is x",
        second.position,
        None,
        "a wire gets its value from one place",
    )


def top_modules(modules: Mapping[str, ast.Module | ast.Primitive]) -> list[str]:
    """Modules that no other uses (12.1.1), in order."""
    used: set[str] = set()
    for module in modules.values():
        if isinstance(module, ast.Module):
            used.update(modules_used(module.items))
    return [
        name for name, m in modules.items() if isinstance(m, ast.Module) and name not in used and not m.is_interface
    ]


def modules_used(items: Sequence[ast.Item | None]) -> list[str]:
    """Names of the modules and primitives that these items use."""
    used: list[str] = []
    for item in items:
        match item:
            case ast.Instance():
                used.append(item.module)
            case ast.InterfacePort() if item.interface:
                used.append(item.interface)
            case ast.GenerateBlock():
                used += modules_used(item.items)
            case ast.GenerateFor():
                used += modules_used(item.body.items)
            case ast.GenerateIf():
                used += modules_used([item.then, item.other])
            case ast.GenerateCase():
                used += modules_used([block for _, block in item.arms] + [item.default])
            case _:
                pass
    return used
