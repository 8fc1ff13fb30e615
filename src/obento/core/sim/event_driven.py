"""Designs that may remember: all cases side by side, delta by delta, each process with a mask of the lanes it wakes in.

Lane for lane this is what `timeline` does, in the same order of sweeps; see there for the rules.
"""

from __future__ import annotations

from dataclasses import dataclass

from obento.core.ir.design import BUS, Design, Process
from obento.core.ir.drivers import (
    expressions,
    function_bits,
    functions_called,
    power_up_words,
    statements,
    written_bits,
)
from obento.core.ir.nodes import Case, Const, Resolve, Stmt, Tristate
from obento.core.ir.walks import walk
from obento.core.limits import Limits
from obento.core.sim.lanes.bits import Bit, BitOps, Unfit
from obento.core.sim.lanes.fit import require_fit, require_processes_fit
from obento.core.sim.lanes.graph import FALSE, Graph
from obento.core.sim.lanes.symbolic import Symbolic
from obento.core.sim.lanes.tape import Tape
from obento.core.sim.lanes.words import Writes


@dataclass(slots=True)
class _Lowered:
    """A process on symbols, before its tape is made."""

    reads: list[int]
    blocking: Writes
    later: list[tuple[int, Bit, int]]
    wakes: dict[int, int]


@dataclass(slots=True)
class _Step:
    """A process ready to run: its tape, the bits it reads and what the outputs of the tape mean."""

    tape: Tape
    reads: list[int]
    writes: list[int]
    later: list[int]
    wakes: list[int]


class EventDriven:
    """The state of a design in many lanes. `power_up`, then any number of `apply`."""

    def __init__(self, design: Design, limits: Limits, inputs_may_float: bool = False) -> None:
        require_fit(design, limits)
        require_processes_fit(design.processes, delays_matter=True)
        if any(process.origin == BUS for process in design.processes):
            raise Unfit("a bus of a design that may remember")
        self._design = design
        self._limits = limits
        self._graph = Graph(limits.graph_nodes)
        self._ops = BitOps(self._graph, inputs_may_float or _may_float(design))
        self._start = self._start_bits()
        self._leaves: dict[int, Bit] = {}
        self._fixed = set(range(design.bits)) - self._variable_bits()
        self._watchers: dict[int, list[tuple[int, str]]] = {}
        for index, process in enumerate(design.processes):
            for w in process.watches:
                for i in range(w.width):
                    self._watchers.setdefault(w.signal.offset + w.low + i, []).append((index, w.edge))
        self._steps = self._lower()
        self.full = 1
        self._one: list[int] = []
        self._zero: list[int] = []
        self._now: list[int] = []
        self._next: list[int] = []
        self._later: list[tuple[int, int, int, int]] = []
        self._idle: tuple[list[int], list[int], int] | None = None

    # Lowering.

    def _start_bits(self) -> list[tuple[int, int]]:
        start: list[tuple[int, int]] = []
        for signal, (one, zero) in zip(self._design.signals, power_up_words(self._design), strict=True):
            start += [(one >> i & 1, zero >> i & 1) for i in range(signal.width)]
        return start

    def _variable_bits(self) -> set[int]:
        """Bits that may ever change."""
        bits: set[int] = set()
        for process in self._design.processes:
            bits |= written_bits(process)
        bits |= function_bits(self._design)
        for port in self._design.ports:
            if port.direction != "out":
                bits.update(range(port.signal.offset, port.signal.offset + port.signal.width))
        return bits

    def _leaf(self, bit: int) -> Bit:
        if bit in self._fixed:
            return self._start[bit]
        leaf = self._leaves.get(bit)
        if leaf is None:
            leaf = self._leaves[bit] = (self._graph.leaf(), self._graph.leaf())
        return leaf

    def _lower(self) -> list[_Step]:
        lowered: list[_Lowered] = []
        needed = set(self._watchers)
        for port in self._design.ports:
            needed.update(range(port.signal.offset, port.signal.offset + port.signal.width))
        needed.update(signal.offset for signal in self._design.escapes)
        for index, process in enumerate(self._design.processes):
            surroundings = _Listener(self, index)
            effect = Symbolic(self._ops, surroundings, self._limits, self._design.given).run(process.body)
            needed |= surroundings.reads
            later: list[tuple[int, Bit, int]] = []
            for bit, (value, written) in effect.later.items():
                each = effect.each[bit]
                # A bit that somebody watches may change twice (1364-2005 clause 11.4.1: updates happen in order). In
                # VHDL
                # the later assignment takes the place of the earlier one (1076-1993 clause 8.4.1).
                is_ordered = bit in self._watchers and len(each) > 1 and not process.shadow
                later += [(bit, v, w) for v, w in each] if is_ordered else [(bit, value, written)]
            lowered.append(_Lowered([], effect.blocking, later, surroundings.wakes))
        run = self._graph.leaf()
        return [self._step(item, needed, run) for item in lowered]

    def _step(self, item: _Lowered, needed: set[int], run: int) -> _Step:
        g, ops = self._graph, self._ops
        outputs: list[int] = []
        writes = [bit for bit in item.blocking if bit in needed]
        for bit in writes:
            value, written = item.blocking[bit]
            outputs += ops.choose(g.and_(run, written), value, self._leaf(bit))
        later = [bit for bit, _, _ in item.later if bit in needed]
        for bit, value, written in item.later:
            if bit in needed:
                outputs += [*value, g.and_(run, written)]
        wakes = [q for q, literal in item.wakes.items() if literal != FALSE]
        outputs += [g.and_(run, item.wakes[q]) for q in wakes]
        cone = set(g.cone(outputs))
        reads = [bit for bit, leaf in self._leaves.items() if leaf[0] >> 1 in cone or leaf[1] >> 1 in cone]
        leaves = [run] + [literal for bit in reads for literal in self._leaves[bit]]
        return _Step(Tape(g, leaves, outputs), reads, writes, later, wakes)

    # Running.

    def power_up(self, full: int) -> int:
        """Start all lanes of `full` with every input x. Returns the lanes that do not settle (all or none)."""
        if self._idle is None:
            self.full = 1
            self._one = [one for one, _ in self._start]
            self._zero = [zero for _, zero in self._start]
            count = len(self._steps)
            self._now = [0] * count
            self._next = [int(p.kind != "always") for p in self._design.processes]
            self._later = []
            unsettled = self._settle()
            self._idle = (self._one, self._zero, unsettled)
        one, zero, unsettled = self._idle
        self.full = full
        self._one = [full if bit else 0 for bit in one]
        self._zero = [full if bit else 0 for bit in zero]
        self._now = [0] * len(self._steps)
        self._next = [0] * len(self._steps)
        self._later = []
        return full if unsettled else 0

    def begin(self, full: int, planes: dict[int, tuple[int, int]]) -> int:
        """Start all lanes of `full` with these input bits from the beginning, as `Timeline.start` with inputs given.

        Returns the lanes that do not settle.

        Raises
        ------
        Unfit
            Where a process keeps what a signal was that takes its first value from another one only now.
        """
        self.full = full
        self._one = [full if one else 0 for one, _ in self._start]
        self._zero = [full if zero else 0 for _, zero in self._start]
        self._now = [0] * len(self._steps)
        self._next = [0 if p.kind == "always" else full for p in self._design.processes]
        self._later = []
        for bit, (one, zero) in planes.items():
            self._update(bit, one, zero, full)
        joined = set[int]().union(
            *(written_bits(p) for p in self._design.processes if p.origin == "port" or not p.shadow)
        )
        for before, signal in self._design.kept:
            if signal.offset in joined:
                raise Unfit("a clock that is joined through a conversion")
            if signal.offset in planes:
                self._one[before.offset], self._zero[before.offset] = planes[signal.offset]
        return self._settle()

    def apply(self, planes: dict[int, tuple[int, int]]) -> int:
        """Set input bits together (bit number -> planes), then settle. Returns the lanes that do not."""
        for bit, (one, zero) in planes.items():
            self._update(bit, one, zero, self.full)
        return self._settle()

    def planes(self, bit: int) -> tuple[int, int]:
        """The planes of a bit of the design, one lane a digit."""
        return self._one[bit], self._zero[bit]

    def _settle(self) -> int:
        sweeps = 0
        stopped = 0
        while True:
            while any(self._next):
                sweeps += 1
                if sweeps > self._limits.deltas:
                    stopped |= self._give_up()
                    sweeps = 0
                    continue
                self._sweep()
            if not self._later:
                return stopped
            updates, self._later = self._later, []
            for bit, one, zero, mask in updates:
                self._update(bit, one, zero, mask)

    def _give_up(self) -> int:
        """Take the lanes that still move out of everything; the others go on undisturbed. Gives those lanes."""
        moving = 0
        for mask in self._next:
            moving |= mask
        self._next = [mask ^ (mask & moving) for mask in self._next]
        self._later = [(bit, one, zero, mask ^ (mask & moving)) for bit, one, zero, mask in self._later]
        return moving

    def _sweep(self) -> None:
        now, self._next = self._next, self._now
        self._now = now
        one, zero = self._one, self._zero
        for index, step in enumerate(self._steps):
            mask = now[index]
            if not mask:
                continue
            now[index] = 0
            inputs = [mask]
            for bit in step.reads:
                inputs.append(one[bit])
                inputs.append(zero[bit])
            out = iter(step.tape.run(inputs, self.full))
            for bit in step.writes:
                one[bit] = next(out)
                zero[bit] = next(out)
            for bit in step.later:
                self._later.append((bit, next(out), next(out), next(out)))
            for q in step.wakes:
                event = next(out)
                self._next[q] |= event ^ (event & now[q])

    def _update(self, bit: int, one: int, zero: int, mask: int) -> None:
        """Write a bit in the lanes of `mask` from outside any process, and wake its watchers."""
        old1, old0 = self._one[bit], self._zero[bit]
        diff1, diff0 = (old1 ^ one) & mask, (old0 ^ zero) & mask
        changed = diff1 | diff0
        if not changed:
            return
        new1, new0 = old1 ^ diff1, old0 ^ diff0
        self._one[bit], self._zero[bit] = new1, new0
        for index, edge in self._watchers.get(bit, ()):
            if edge == "any":
                self._next[index] |= changed
            elif edge == "pos":  # from 0, or to 1
                self._next[index] |= changed & ((old0 & (old0 ^ old1)) | (new1 & (new0 ^ new1)))
            else:
                self._next[index] |= changed & ((old1 & (old0 ^ old1)) | (new0 & (new0 ^ new1)))


class _Listener:
    """The surroundings of one process while it is lowered: leaves to read, watchers to wake."""

    def __init__(self, owner: EventDriven, index: int) -> None:
        self._owner = owner
        self._index = index
        self.reads: set[int] = set()
        self.wakes: dict[int, int] = {}

    def read(self, bit: int) -> Bit:
        self.reads.add(bit)
        return self._owner._leaf(bit)

    def watched(self, bit: int) -> Bit | None:
        return self._owner._leaf(bit) if bit in self._owner._watchers else None

    def changed(self, bit: int, old: Bit, new: Bit, active: int) -> None:
        g, ops = self._owner._graph, self._owner._ops
        changed = g.and_(active, ops.identical([old], [new]) ^ 1)
        if changed == FALSE:
            return
        for index, edge in self._owner._watchers[bit]:
            if index == self._index and self._owner._design.processes[index].kind != "continuous":
                continue  # it runs, so it does not wait
            event = changed
            if edge != "any":
                was, becomes = ops.logic(old), ops.logic(new)
                fires = g.or_(was[1], becomes[0]) if edge == "pos" else g.or_(was[0], becomes[1])
                event = g.and_(changed, fires)
            self.wakes[index] = g.or_(self.wakes.get(index, FALSE), event)


def _may_float(design: Design) -> bool:
    """Whether any signal could ever hold z: a tri-state driver, a literal z that is stored, or an undriven net."""
    for signal, (one, zero) in zip(design.signals, power_up_words(design), strict=True):
        if one & zero and signal.width:
            return True
    return any(_holds_z(process) for process in design.processes)


def _holds_z(process: Process) -> bool:
    bodies: list[Stmt | None] = [process.body, *(f.body for f in functions_called(process.body))]
    for body in bodies:
        for s in statements(body):
            stored = [s.subject] if isinstance(s, Case) else expressions(s)
            for e in stored:
                for node in walk(e):
                    if isinstance(node, Tristate | Resolve) or (isinstance(node, Const) and node.one & node.zero):
                        return True
    return False
