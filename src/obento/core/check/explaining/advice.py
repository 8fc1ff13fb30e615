"""Warnings on how a design is written that help to see why it fails: what a process forgets to write, and what it does
not wake for."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable

from obento.core.check.explaining.latches import find_latches
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import functions_called, written_bits
from obento.core.ir.signal import Signal
from obento.core.limits import LimitReached, Limits
from obento.core.sentences.said import say
from obento.core.sim.lanes.bits import Bit, BitOps, Unfit
from obento.core.sim.lanes.graph import Graph
from obento.core.sim.lanes.symbolic import Symbolic

Tell = Callable[[str, str, int, str], None]
"""Hears of a warning: code, text, position, hint."""

_MOST_PROCESSES = 200


def advise(design: Design, limits: Limits, tell: Tell) -> None:
    """Look at each process that waits for levels (clocked ones are meant to remember)."""
    owner: dict[int, Signal] = {s.offset + i: s for s in design.signals for i in range(s.width)}
    moving = _moving(design)
    readers = _Readers(design)
    looked = 0
    for process in design.processes:
        if (
            not process.origin.startswith(("always", "process", "assignment"))
            or process.kind == "forever"
            or any(w.edge != "any" for w in process.watches)
        ):
            continue
        looked += 1
        if looked > _MOST_PROCESSES:
            return
        _look(process, owner, readers, moving, limits, tell)


def _look(
    process: Process, owner: dict[int, Signal], readers: _Readers, moving: set[int], limits: Limits, tell: Tell
) -> None:
    surroundings = _Known(Graph(limits.graph_nodes))
    try:
        effect = Symbolic(BitOps(surroundings.graph, may_float=False), surroundings, limits).run(process.body)
    except (Unfit, LimitReached):
        return
    woken = _woken_by(process)
    own = {id(s) for f in functions_called(process.body) for s in f.storage()}
    forgotten: dict[int, Signal] = {}
    for bit, (_, written) in (effect.blocking | effect.later).items():
        signal = owner[bit]
        if readers.are_elsewhere(bit, woken) and id(signal) not in own and not surroundings.graph.is_tautology(written):
            forgotten[signal.id] = signal
    places = {latch.signal.id: latch for latch in find_latches(process.body)}
    for signal in forgotten.values():
        place = places.get(signal.id)
        where = place.why if place else say("latch-somewhere")
        tell(
            "latch",
            say("latch", name=_plain(signal), where=where),
            place.position if place else process.position,
            "give it a value at the top, or in every branch",
        )
    if process.kind != "always":
        return
    written_here = effect.blocking.keys() | effect.later.keys()
    missing = {
        owner[b].id: owner[b]
        for b in sorted(surroundings.reads - woken - written_here)
        if id(owner[b]) not in own and b in moving
    }
    if missing:
        names = [f"`{_plain(s)}`" for s in missing.values()]
        tell("sensitivity", say("sensitivity", names=names), process.position, "write `always @*`")


class _Readers:
    """Who reads each bit: output ports that show it, processes that wake for it."""

    def __init__(self, design: Design) -> None:
        self._shown = {p.signal.offset + i for p in design.ports if p.direction != "in" for i in range(p.signal.width)}
        self._processes = Counter(bit for process in design.processes for bit in _woken_by(process))

    def are_elsewhere(self, bit: int, woken: set[int]) -> bool:
        """Whether a port reads a bit, or a process besides the one that is `woken` by these."""
        return bit in self._shown or self._processes[bit] > (bit in woken)


def _woken_by(process: Process) -> set[int]:
    return {w.signal.offset + w.low + i for w in process.watches for i in range(w.width)}


def _moving(design: Design) -> set[int]:
    """Bits that can ever change: inputs and whatever is written."""
    from_ports = {p.signal.offset + i for p in design.ports if p.direction == "in" for i in range(p.signal.width)}
    return from_ports.union(*(written_bits(process) for process in design.processes))


def _plain(signal: Signal) -> str:
    return signal.name.rpartition(".")[2]


class _Known:
    """A surroundings in which everything read is 0 or 1."""

    def __init__(self, graph: Graph) -> None:
        self.graph = graph
        self.reads: set[int] = set()
        self._leaves: dict[int, Bit] = {}

    def read(self, bit: int) -> Bit:
        self.reads.add(bit)
        if bit not in self._leaves:
            leaf = self.graph.leaf()
            self._leaves[bit] = (leaf, leaf ^ 1)
        return self._leaves[bit]

    def watched(self, bit: int) -> Bit | None:
        return None

    def changed(self, bit: int, old: Bit, new: Bit, active: int) -> None:
        raise AssertionError("nothing is watched here")
