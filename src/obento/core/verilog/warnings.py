"""What compiles and runs, but is seldom meant: said once the design is there."""

from __future__ import annotations

from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design
from obento.core.ir.drivers import statements


def warn_about(design: Design, collector: Collector) -> None:
    """Look through the processes of a design."""
    for process in design.processes:
        if process.kind != "continuous" or process.origin.startswith("always"):
            _mixed_assignment(process.body, collector)


def _mixed_assignment(body: ir.Stmt, collector: Collector) -> None:
    kinds: dict[int, set[bool]] = {}
    for s in statements(body):
        if not isinstance(s, ir.Assign):
            continue
        for t in s.targets:
            kinds.setdefault(t.signal.id, set()).add(s.blocking)
            if len(kinds[t.signal.id]) == 2:
                name = t.signal.name.rpartition(".")[2]
                collector.warning(
                    "mixed-assignment", f"`{name}` is assigned with `=` and with `<=` in one process", s.position, None,
                    "use one of the two for it",
                )  # fmt: skip
