"""From design units to what runs: a whole hierarchy as one Design with one Run (IEEE 1076 clause 14)."""

from __future__ import annotations

from threading import RLock
from types import CodeType
from typing import Any

from obento.core.diagnostics import Collector
from obento.core.ir.design import Design, Instance
from obento.core.ir.seldom_meant import states_and_clocks
from obento.core.limits import LimitReached, Limits
from obento.core.source import Sources
from obento.core.vhdl.analysis.context import AnalysisError, Context
from obento.core.vhdl.analysis.forgotten import driven_twice, never_assigned, read_too_early
from obento.core.vhdl.code.pieces import compiled
from obento.core.vhdl.code.statements import Emitter
from obento.core.vhdl.design_units import DesignUnits
from obento.core.vhdl.elaboration.building import Building, Foreign
from obento.core.vhdl.elaboration.early_run import EarlyBench, early_run
from obento.core.vhdl.elaboration.instances import binding_specs
from obento.core.vhdl.elaboration.packages import Library
from obento.core.vhdl.elaboration.rooms import library_part, put_together
from obento.core.vhdl.lanes.buses import Buses
from obento.core.vhdl.lanes.processes import Lanes
from obento.core.vhdl.lanes.shared import private
from obento.core.vhdl.lanes.values import NoLanes
from obento.core.vhdl.model.types import ArrayType, RecordType, Subtype
from obento.core.vhdl.packages.standard import standard_scope
from obento.core.vhdl.runtime.composites import overlap
from obento.core.vhdl.runtime.run import Run
from obento.core.vhdl.syntax import ast

_ALONE = RLock()
"""Held while a design is built: the types of our packages are shared by all, and know for a while what a design makes
of them."""


class Elaborator:
    """Builds one Design with one Run."""

    def __init__(
        self,
        design_units: DesignUnits,
        collector: Collector,
        limits: Limits,
        sources: Sources | None = None,
        foreign: Foreign | None = None,
        folder: Any = None,
    ) -> None:
        emitter = Emitter("")
        self._early = EarlyBench(folder)
        emitter.live["R"] = early_run(limits, self._early)
        self._context = Context(collector, limits, sources, emitter)
        self._building = Building(design_units, foreign)
        self._rooms = put_together(self._context, self._building, Library(standard_scope(), library_part))

    def package_alone(self, name: str, node: ast.Node) -> None:
        """Analyse a package that nobody uses; what is wrong with it is reported."""
        with _ALONE:
            try:
                self._rooms.packages.package_named("work", name, node)
            except AnalysisError:
                return
            except LimitReached as limit:
                self._context.collector.error("limit", limit.text, limit.position, None, limit.hint)
            finally:
                self._context.forget_arrays()

    def top(self, name: str) -> Design | None:
        """A whole design from its top entity; None when something is wrong (reported). Threads wait for each other."""
        with _ALONE:
            return self._top(name)

    def _top(self, name: str) -> Design | None:
        entity = self._building.design_units.entities[name]
        errors = self._context.collector.errors
        self._building.design.unit = name
        self._building.instance = self._building.design.root = Instance(name, name, entity.name_pos)
        try:
            wanted = ""
            chosen = [c for c in self._building.design_units.configurations.values() if c.entity == name]
            if len(chosen) == 1:  # a configuration of the whole, handed in with it, is meant to be used
                wanted = chosen[0].block.name
                self._building.configured.append(binding_specs(chosen[0].block))
            self._rooms.units.build(entity, self._rooms.units.architecture_of(entity, wanted, entity), name, {}, None)
        except AnalysisError:
            pass
        except LimitReached as limit:
            self._context.collector.error("limit", limit.text, limit.position, None, limit.hint)
        except RecursionError:
            self._context.collector.error("too-deep", "this is nested too deep to be built", entity.name_pos)
        finally:
            self._context.forget_arrays()
        if self._context.collector.errors > errors:
            return None
        self._check_drivers()
        if self._context.collector.errors > errors:
            return None
        never_assigned(self._building.objects, self._warn)
        driven_twice(self._building.objects, self._building.processes, self._warn)
        for p in self._building.processes:
            read_too_early(p, self._warn)
        self._finish()
        for seldom in states_and_clocks(self._building.design):
            self._context.collector.warning(seldom.code, seldom.text, seldom.position, None, seldom.hint)
        return self._building.design

    def _warn(self, code: str, text: str, start: int, end: int, hint: str) -> None:
        self._context.collector.warning(code, text, start, end, hint)

    def _check_drivers(self) -> None:
        """A signal without resolution has one source for each of its parts."""
        seen: set[str] = set()
        for o in self._building.objects:
            if o.py in seen:
                continue
            seen.add(o.py)
            if len({source for source, _, _ in o.sources}) < 2 or _is_resolved(o.subtype):
                continue
            for i, (source, pos, path) in enumerate(o.sources):
                for other, other_pos, other_path in o.sources[:i]:
                    if other != source and overlap(path, other_path):
                        line = self._context.line(other_pos)
                        text = (
                            f"`{o.name}` is driven here and at line {line}, but {o.subtype.shown} allows one driver"
                            " only"
                        )
                        self._context.collector.error(
                            "two-drivers", text, pos, None, "assign it in one process only, or use std_logic"
                        )
                        return

    def _undriven_ports(self) -> None:
        """An output that nothing inside drives gives its default value all the same (14.7.3.2)."""
        for p, actual, count in self._building.joined:
            if len(p.sources) == count and p.mode in ("out", "inout", "buffer"):
                self._context.setup.append(f"R.driver({p.py}, {self._context.emitter.constant(p.value)}, None)")
                self._building.silent_ports = True
                p.sources.append((id(p), p.pos, ()))
            del actual

    def _finish(self) -> None:
        self._undriven_ports()
        self._context.flush()
        self._building.design.names = self._building.names
        pieces = list(self._context.emitter.pieces)
        names = dict(self._context.emitter.names)
        codes: list[CodeType] = []

        def prepare() -> None:
            if not codes:
                codes.extend(map(compiled, pieces))

        def make(run: Run) -> None:
            space = dict(names)
            space["R"] = run
            for code in codes:
                exec(code, space)  # our own text, made in elaboration

        run = Run(prepare, make)
        run.early = self._early.reports
        run.keeps_state = self._context.emitter.keeps_state
        run.unfit = self._lower()
        run.inputs = [p.signal for p in self._building.design.ports if p.direction != "out"] + self._building.outside
        self._building.design.parts.append(run)

    def _lower(self) -> str:
        """Add the form for lanes; why there is none, if so."""
        design = self._building.design
        lists: list[list[Any]] = [design.escapes, design.errors, design.kept]
        before = [len(each) for each in lists]
        try:
            if self._building.implicit_signals or self._building.outside or self._building.silent_ports:
                raise NoLanes("signals that are not only assigned")
            processes = self._building.processes
            buses = Buses(self._building.objects, processes)
            computed, limits = self._rooms.declarations.computed, self._context.limits
            lanes = Lanes(self._building.design, computed, limits, buses, private(processes))
            for p in processes:
                lanes.process(p)
            for port, path, x, converted, position, is_input in self._building.joins:
                if is_input:
                    lanes.join(port, path, x, position)
                else:
                    lanes.join_back(x, port, path, converted, position)
            made = lanes.in_order()
        except NoLanes as reason:
            _cut_back(lists, before)
            return f"{reason} cannot be run for all cases at once"
        except RecursionError:
            _cut_back(lists, before)
            return "this nests too deep to be run for all cases at once"
        self._building.design.processes += made
        return ""


def _cut_back(lists: list[list[Any]], lengths: list[int]) -> None:
    """Take away what was added to some lists."""
    for each, length in zip(lists, lengths, strict=True):
        del each[length:]


def _is_resolved(s: Subtype) -> bool:
    if s.resolution is not None:
        return True
    if isinstance(s.type, ArrayType):
        return _is_resolved(s.element_subtype)
    return isinstance(s.type, RecordType) and all(_is_resolved(f) for _, f in s.fields)
