"""Marks of cases that the timeline tells: whether a process can ever raise one."""

from __future__ import annotations

from collections.abc import Callable

from obento.core.ir.design import Process
from obento.core.limits import LimitReached, Limits
from obento.core.sim.lanes.bits import Bit, BitOps, Unfit
from obento.core.sim.lanes.graph import FALSE, TRUE, Graph
from obento.core.sim.lanes.symbolic import Symbolic

_MOST_NODES = 200_000


class _Any:
    """A process among inputs that may be anything at any time: 0, 1, x or z, also what never settles there."""

    def __init__(
        self, graph: Graph, process: Process, marks: frozenset[int], fixed: Callable[[int], Bit | None]
    ) -> None:
        self._graph = graph
        self._marks = marks
        self._fixed = fixed
        self._woken_by = {w.signal.offset + w.low + i for w in process.watches for i in range(w.width)}
        self._leaves: dict[int, Bit] = {}
        self.kept: set[int] = set()
        self.is_closed = True

    def read(self, bit: int) -> Bit:
        if bit in self._marks:
            self.kept.add(bit)
            return FALSE, TRUE
        fixed = self._fixed(bit)
        if fixed is not None:
            return fixed
        self.is_closed = self.is_closed and bit in self._woken_by
        if bit not in self._leaves:
            self._leaves[bit] = self._graph.leaf(), self._graph.leaf()
        return self._leaves[bit]

    def watched(self, bit: int) -> Bit | None:
        return None

    def changed(self, bit: int, old: Bit, new: Bit, active: int) -> None:
        raise AssertionError("nothing is watched here")


def never_marks(
    process: Process, marks: frozenset[int], fixed: Callable[[int], Bit | None], limits: Limits
) -> frozenset[int]:
    """The marks among those given that a process keeps and can never raise, whatever it is woken by and however often.

    A mark that is kept is memory, and one that is raised on the way to where a design settles counts as well; so what
    the settled inputs are does not prove anything, and all inputs are taken to be free.

    Parameters
    ----------
    marks
        Numbers of the bits that mark cases (`Design.escapes`).
    fixed
        The value of a bit that nobody writes, None for any other.
    """
    graph = Graph(_MOST_NODES)
    outside = _Any(graph, process, marks, fixed)
    try:
        effect = Symbolic(BitOps(graph, may_float=True), outside, limits).run(process.body)
    except (Unfit, LimitReached):
        return frozenset()
    if not outside.is_closed:
        return frozenset()
    written = effect.blocking | effect.later
    return frozenset(bit for bit in outside.kept if bit not in written or graph.is_tautology(written[bit][0][0] ^ 1))
