"""Designs without memory: all processes in level order become one tape, run once over all cases.

Only a design that provably computes a function of its inputs is taken, so that neither the order of events nor what was
there before can matter. The rules, each checked below:

- no start values, no `initial` processes, no edges;
- each bit is written by one process, and the processes can be put in an order in which inputs come first;
- what a process writes for others it writes on every way through, and it wakes for everything it reads from outside;
- an `always` process reads something that certainly changes when a case is applied, so that it does run.
"""

from __future__ import annotations

from collections.abc import Iterator

from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import all_written_bits, function_bits, power_up_words
from obento.core.ir.nodes import Assign, Binary, Expr, Ref, Slice, Unary
from obento.core.limits import Limits
from obento.core.pause import collector_held
from obento.core.sim.bits import Bit, BitOps
from obento.core.sim.fit import require_fit
from obento.core.sim.graph import Graph
from obento.core.sim.symbolic import Symbolic
from obento.core.sim.tape import Tape

_GATE_OPS = frozenset(["and", "or", "xor"])


class HasMemory(Exception):
    """The design is not, or cannot be shown to be, a function of its inputs."""


class Levelled:
    """A design lowered to one tape.

    `input_bits` are the numbers of the bits whose planes `run` takes, in that order. Ports named in `floating` hold z.
    """

    def __init__(self, design: Design, limits: Limits, floating: frozenset[str] = frozenset()) -> None:
        with collector_held():
            self._build(design, limits, floating)

    def _build(self, design: Design, limits: Limits, floating: frozenset[str]) -> None:
        require_fit(design, limits, delays_matter=False)
        written_by = all_written_bits(design)
        writer = _single_writers(design, written_by)
        self._graph = Graph(limits.graph_nodes)
        self._bits: dict[int, Bit] = {}
        self._fixed: set[int] = set()
        self.input_bits: list[int] = []
        leaves: list[int] = []
        for port in design.ports:
            if port.direction != "in":
                continue
            for i in range(port.signal.width):
                if port.name in floating:
                    self._bits[port.signal.offset + i] = (1, 1)
                    continue
                self.input_bits.append(port.signal.offset + i)
                leaf = self._graph.leaf()
                leaves.append(leaf)
                self._bits[port.signal.offset + i] = (leaf, leaf ^ 1)
        written: set[int] = function_bits(design).union(*written_by)
        for signal, (one, zero) in zip(design.signals, power_up_words(design, written_by), strict=True):
            for i in range(signal.width):
                bit = signal.offset + i
                if bit not in written and bit not in self._bits:
                    self._bits[bit] = (one >> i & 1, zero >> i & 1)
                    self._fixed.add(bit)
        for signal in design.escapes:
            self._bits[signal.offset] = 0, 1
        self._ops = BitOps(self._graph, may_float=True)
        for process in self._in_level_order(design, writer):
            self._lower(process, limits)
        self._output_bits: list[int] = []
        literals: list[int] = []
        for port in design.ports:
            for i in range(port.signal.width) if port.direction != "in" else ():
                value = self._bits.get(port.signal.offset + i)
                if value is None:
                    raise HasMemory("an output is not written on every way")
                self._output_bits.append(port.signal.offset + i)
                literals += value
        for signal in design.escapes:
            self._output_bits.append(signal.offset)
            literals += self._bits[signal.offset]
        self.tape = Tape(self._graph, leaves, literals)

    def _in_level_order(self, design: Design, writer: dict[int, int]) -> Iterator[Process]:
        """Processes, each after those whose results it wakes for. Gates whose inputs are there are done on the way.

        Raises
        ------
        HasMemory
            If there is no such order.
        """
        placed = self._lower_gates(design.processes)
        held: list[int] = []
        for index, process in enumerate(design.processes):  # most texts are written in level order already
            if placed[index]:
                continue
            if self._lower_gate(process):
                placed[index] = 1
            elif _sources(process, index, writer, placed):
                held.append(index)
            else:
                yield process
                placed[index] = 1
        waits = {index: _sources(design.processes[index], index, writer, placed) for index in held}
        readers: dict[int, list[int]] = {}
        for index, sources in waits.items():
            for source in sources:
                readers.setdefault(source, []).append(index)
        ready = [index for index in held if not waits[index]]
        for index in ready:  # grows while it is walked
            if not self._lower_gate(design.processes[index]):
                yield design.processes[index]
            for reader in readers.get(index, ()):
                waits[reader].discard(index)
                if not waits[reader]:
                    ready.append(reader)
        if len(ready) < len(held):
            raise HasMemory("a loop")

    def _lower_gates(self, processes: list[Process]) -> bytearray:
        """A first sweep over what netlists are made of: gates of two known bits. Marks those that are done.

        It does nothing that `_lower_gate` does not do; but a netlist has thousands of them, and calls are what takes time.
        """
        placed = bytearray(len(processes))
        bits, and_, xor = self._bits, self._graph.and_, self._graph.xor
        known = bits.get
        for index, process in enumerate(processes):
            body = process.body
            if type(body) is not Assign or process.kind != "continuous":
                continue
            e = body.value
            flip = 0
            while type(e) is Unary and e.op == "not":
                flip, e = flip ^ 1, e.a
            if e.width != 1 or len(body.targets) != 1:
                continue
            target = body.targets[0]
            if type(e) is Binary:
                x, y, op = e.a, e.b, e.op
            else:
                x, y, op = e, e, "and"
            if type(x) is Ref and x.width == 1:
                a = known(x.signal.offset)
            elif type(x) is Slice and type(x.a) is Ref and 0 <= x.low < x.a.width and x.width == 1:
                a = known(x.a.signal.offset + x.low)
            else:
                continue
            if type(y) is Ref and y.width == 1:
                b = known(y.signal.offset)
            elif type(y) is Slice and type(y.a) is Ref and 0 <= y.low < y.a.width and y.width == 1:
                b = known(y.a.signal.offset + y.low)
            else:
                continue
            if a is None or b is None or target.offsets or not 0 <= target.low < target.signal.width:
                continue
            p, q = a[0], b[0]
            if p ^ a[1] != 1 or q ^ b[1] != 1:
                continue
            if op == "and":
                literal = and_(p, q) ^ flip
            elif op == "or":
                literal = and_(p ^ 1, q ^ 1) ^ flip ^ 1
            elif op == "xor":
                literal = xor(p, q) ^ flip
            else:
                continue
            bits[target.signal.offset + target.low] = literal, literal ^ 1
            placed[index] = 1
        return placed

    def _lower_gate(self, process: Process) -> bool:
        """The short way for what netlists are made of: one known bit out of known bits. False when it does not fit."""
        # `type(...) is` instead of patterns, and no helper for the plain operand: this runs for every gate of a netlist.
        body = process.body
        if type(body) is not Assign or process.kind != "continuous" or body.value.width != 1 or len(body.targets) != 1:
            return False
        target = body.targets[0]
        if target.offsets or not 0 <= target.low < target.signal.width:
            return False
        e = body.value
        flip = 0
        if type(e) is Unary and e.op == "not":
            flip, e = 1, e.a
        literal = self._known_literal(e)
        if literal < 0:
            return False
        literal ^= flip
        self._bits[target.signal.offset + target.low] = (literal, literal ^ 1)
        return True

    def _known_literal(self, e: Expr) -> int:
        """The literal of a one-bit expression over known bits; -1 where the long way is needed."""
        kind = type(e)
        if kind is Binary:
            op = e.op  # type: ignore[attr-defined]
            if op not in _GATE_OPS:
                return -1
            known = self._bits
            operands = []
            for part in (e.a, e.b):  # type: ignore[attr-defined]
                # The two plain kinds of operands, here once more: a call for each would take as long as all the rest.
                if type(part) is Ref and part.width == 1:
                    bit = known.get(part.signal.offset)
                elif type(part) is Slice and type(part.a) is Ref and part.width == 1 and 0 <= part.low < part.a.width:
                    bit = known.get(part.a.signal.offset + part.low)
                else:
                    literal = self._known_literal(part)
                    if literal < 0:
                        return -1
                    operands.append(literal)
                    continue
                if bit is None or bit[0] ^ bit[1] != 1:
                    return -1
                operands.append(bit[0])
            a, b = operands
            if op == "and":
                return self._graph.and_(a, b)
            return self._graph.and_(a ^ 1, b ^ 1) ^ 1 if op == "or" else self._graph.xor(a, b)
        if kind is Unary:
            a = self._known_literal(e.a) if e.op == "not" else -1  # type: ignore[attr-defined]
            return a ^ 1 if a >= 0 else -1
        if kind is Ref:
            bit = self._bits.get(e.signal.offset) if e.width == 1 else None  # type: ignore[attr-defined]
        elif kind is Slice and type(e.a) is Ref and e.width == 1 and 0 <= e.low < e.a.width:  # type: ignore[attr-defined]
            bit = self._bits.get(e.a.signal.offset + e.low)  # type: ignore[attr-defined]
        else:
            return -1
        return bit[0] if bit is not None and bit[0] ^ bit[1] == 1 else -1

    def _lower(self, process: Process, limits: Limits) -> None:
        world = _Outside(self._bits, self._fixed, process)
        effect = Symbolic(self._ops, world, limits).run(process.body)
        if effect.later:
            # Settled, a non-blocking update of a function of the inputs is the same as a blocking one.
            if effect.blocking.keys() & effect.later.keys():
                raise HasMemory("blocking and non-blocking writes to one bit")
        for bit, (value, written) in (effect.blocking | effect.later).items():
            if self._graph.is_tautology(written):
                self._bits[bit] = value
            # else it may remember: whoever reads it finds it missing. Scratch variables are read by nobody else.
        if process.kind == "always" and not world.certain_event:
            raise HasMemory("may never run")

    def run(self, inputs: list[int], full: int) -> dict[int, tuple[int, int]]:
        """Planes (one, zero) of each output bit by its number; `inputs` are the planes of `input_bits`."""
        planes = iter(self.tape.run(inputs, full))
        return {bit: (next(planes), next(planes)) for bit in self._output_bits}


class _Outside:
    """What a process sees while it is lowered: bits settled before, and only those it wakes for."""

    def __init__(self, bits: dict[int, Bit], fixed: set[int], process: Process) -> None:
        self._bits = bits
        self._fixed = fixed
        self._woken_by: set[int] | None = None
        self.certain_event = False
        if process.kind == "always" or process.shadow:
            self._woken_by = {w.signal.offset + w.low + i for w in process.watches for i in range(w.width)}

    def read(self, bit: int) -> Bit:
        value = self._bits.get(bit)
        if value is None:
            raise HasMemory("reads what it has not computed")
        if self._woken_by is not None:
            if bit in self._woken_by:
                self.certain_event |= value[0] ^ value[1] == 1 and value[0] > 1
            elif bit not in self._fixed:  # a constant that some process sets is not there before that has run
                raise HasMemory("does not wake for what it reads")
        return value

    def watched(self, bit: int) -> Bit | None:
        return None

    def changed(self, bit: int, old: Bit, new: Bit, active: int) -> None:
        raise AssertionError("nothing is watched here")


def _single_writers(design: Design, written_by: list[set[int]]) -> dict[int, int]:
    """The number of the process that writes each bit, -1 for inputs.

    Raises
    ------
    HasMemory
        If a bit has several writers, or another rule of this module is broken in a way that shows before lowering.
    """
    writer: dict[int, int] = {}
    for port in design.ports:
        if port.direction == "inout":
            raise HasMemory("a port that goes both ways")
        if port.direction == "in":
            for i in range(port.signal.width):
                writer[port.signal.offset + i] = -1
    for index, process in enumerate(design.processes):
        if process.kind != "continuous" and (process.kind != "always" or any(w.edge != "any" for w in process.watches)):
            raise HasMemory("start values or edges")
        for bit in written_by[index]:
            if bit in writer:
                raise HasMemory("several writers")
            writer[bit] = index
    for signal in design.signals:
        if signal.initial is not None and any(_remembers_start(design, writer.get(signal.offset + i)) for i in range(signal.width)):
            raise HasMemory("start values")
    return writer


def _remembers_start(design: Design, index: int | None) -> bool:
    """Whether a bit with this writer may still hold its start value later; a part's own processes all run at power-up."""
    return index is not None and (index < 0 or not design.processes[index].shadow)


def _sources(process: Process, index: int, writer: dict[int, int], placed: bytearray) -> set[int]:
    """The processes not placed yet whose results a process wakes for."""
    found: set[int] = set()
    for w in process.watches:
        first = w.signal.offset + w.low
        for bit in range(first, first + w.width) if w.width > 1 else (first,):
            source = writer.get(bit, -1)
            if source < 0 or placed[source] or (source == index and process.kind == "always"):
                continue  # an input, there already, or a scratch variable of its own
            found.add(source)
    return found
