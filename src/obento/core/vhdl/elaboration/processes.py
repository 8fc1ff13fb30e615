"""Processes when they are complete (IEEE 1076 clause 11.3)."""

from __future__ import annotations

from obento.core.limits import LimitReached
from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.model import typed_tree as t


class Processes:
    """Takes each process, with what it calls."""

    def __init__(self, context: Context, building: Building, declarations: Declarations) -> None:
        self.context = context
        self.building = building
        self.declarations = declarations

    def finish_process(self, p: t.Process) -> None:
        """Take a process that is settled, and emit it with what it calls."""
        if len(self.building.processes) >= self.context.limits.vhdl_processes:
            raise LimitReached("the design has more processes than can be run", p.pos)
        self.building.processes.append(p)
        p.path = ".".join(self.building.levels)
        for d in p.decls:
            if isinstance(d, t.DeclareSub):
                self.declarations.settle_waits(d.subprogram)
        for name in (*p.calls,):
            self.declarations.emit_subprogram(name)
        self.context.flush()
        self.context.emitter.process(p, ".".join([*self.building.levels, p.name]))
