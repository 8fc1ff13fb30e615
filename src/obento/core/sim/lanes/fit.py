"""Which designs can run in lanes, all cases at once; the others go case by case on the timeline."""

from __future__ import annotations

from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import waits
from obento.core.ir.nodes import Assign
from obento.core.limits import Limits
from obento.core.sim.lanes.bits import Unfit


def require_fit(design: Design, limits: Limits) -> None:
    """No signal needs a line of time of its own: nothing is forced, no real numbers, no large arrays.

    Raises
    ------
    Unfit
    """
    for part in design.parts:
        if part.unfit:
            raise Unfit(part.unfit)
    for signal in design.signals:
        if not signal.has_digits or signal.held or signal.net == "trireg":
            raise Unfit(f"`{signal.name}` needs a single line of time")
        if signal.element and signal.width > limits.lane_memory_bits:
            raise Unfit(f"`{signal.name}` is a large array")


def require_processes_fit(processes: list[Process], delays_matter: bool) -> None:
    """Nothing waits, and nothing has a delay where those matter: where memory can catch what passes by before all has
    settled.

    Raises
    ------
    Unfit
    """
    for process in processes:
        if process.kind == "forever" or (delays_matter and process.delay is not None):
            raise Unfit("takes time")
        if not (isinstance(process.body, Assign) and process.body.timing is None) and waits(process.body):
            raise Unfit("waits inside a process")
