"""Designs without memory: all processes in level order become one tape, run once over all cases.

Only a design that provably computes a function of its inputs is taken, so that neither the order of events nor what was
there before can matter. The rules, each checked below:

- no start values, no edges; of `initial` processes only those that come to their end at once and leave behind
  constants, which nobody else writes;
- each bit is written by one process, and the processes can be put in an order in which inputs come first;
- what a process writes for others it writes on every way through, and it wakes for everything it reads from outside
  (a mark of the timeline's cases, which it keeps, is none of it where it can never be raised);
- an `always` process reads something that certainly changes when a case is applied, so that it does run.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import function_bits, power_up_word, written_bits
from obento.core.limits import LimitReached, Limits
from obento.core.pause import collector_held
from obento.core.sim.lanes.bits import Bit, BitOps
from obento.core.sim.lanes.delays import undelayed
from obento.core.sim.lanes.fit import require_fit, require_processes_fit
from obento.core.sim.lanes.graph import TRUE, Graph
from obento.core.sim.lanes.marks import never_marks
from obento.core.sim.lanes.netlists import lower_gate, sweep
from obento.core.sim.lanes.symbolic import Symbolic
from obento.core.sim.lanes.tape import Tape

_INPUT, _DONE = -2, -1  # in place of the number of a process that writes a bit


Inputs = Literal["known", "unknown", "any"]
"""What the inputs of all cases may be: 0 and 1; also x; also z."""


class HasMemory(Exception):
    """The design is not, or cannot be shown to be, a function of its inputs."""


class Levelized:
    """A design lowered to one tape.

    `input_bits` are the numbers of the bits whose planes `run` takes, in that order: one plane each where all inputs
    are `known`, two where they may be x (`unknown`) or also z (`any`). Ports named in `floating` hold z."""

    def __init__(
        self, design: Design, limits: Limits, floating: frozenset[str] = frozenset(), inputs: Inputs = "known"
    ) -> None:
        self.inputs = inputs
        with collector_held():
            self._build(design, limits, floating)

    def _build(self, design: Design, limits: Limits, floating: frozenset[str]) -> None:
        self._graph = Graph(limits.graph_nodes)
        self._ops = BitOps(self._graph, may_float=True)
        require_fit(design, limits)
        self._bits = _Bits(design.bits)
        self._fixed: set[int] = set()
        leaves = self._inputs(design, floating)
        inputs = dict.fromkeys([*self.input_bits, *self._bits.four_state], _INPUT)
        literals = self._bits.two_state
        processes = [undelayed(p) for p in sweep(design.processes, literals, self._graph)]
        require_processes_fit(processes, delays_matter=False)
        if any(literals[bit] >= 0 for bit in self._bits.four_state):
            raise HasMemory("several writers")
        writer = {bit: _DONE for bit, literal in enumerate(literals) if literal >= 0} | inputs
        self._contents: set[int] = set()
        processes = self._run_initials(design, processes, writer, limits)
        _single_writers(design, processes, writer)
        self._constants(design, writer)
        for signal in design.escapes:
            self._bits.put(signal.offset, (0, 1))
        self._marks = frozenset(signal.offset for signal in design.escapes)
        for process in self._in_level_order(processes, writer):
            self._lower(process, limits)
        shown = [port.signal for port in design.ports if port.direction != "in"] + design.escapes
        self._output_bits = [signal.offset + i for signal in shown for i in range(signal.width)]
        outputs: list[int] = []
        for bit in self._output_bits:
            value = self._bits.get(bit)
            if value is None:
                raise HasMemory("an output is not written on every way")
            outputs += value
        self.tape = Tape(self._graph, leaves, outputs)

    def _inputs(self, design: Design, floating: frozenset[str]) -> list[int]:
        """A leaf for each plane of each input, in the order of `input_bits`; those that float are z.

        Raises
        ------
        HasMemory
            If a port goes both ways.
        """
        self.input_bits: list[int] = []
        leaves: list[int] = []
        for port in design.ports:
            if port.direction == "inout":
                raise HasMemory("a port that goes both ways")
            first = port.signal.offset
            for bit in range(first, first + port.signal.width) if port.direction == "in" else ():
                if port.name in floating:
                    self._bits.put(bit, (1, 1))
                    continue
                one = self._graph.leaf()
                zero = one ^ 1 if self.inputs == "known" else self._graph.leaf()
                self._bits.put(bit, (one, zero) if self.inputs == "any" else self._ops.never_z((one, zero)))
                self.input_bits.append(bit)
                leaves += [one] if self.inputs == "known" else [one, zero]
        return leaves

    def _constants(self, design: Design, writer: dict[int, int]) -> None:
        """What nobody writes holds what it held at power-up."""
        if len(writer) == design.bits:
            return
        functions = function_bits(design)
        for signal in design.signals:
            one, zero = power_up_word(signal, writer)
            for i in range(signal.width):
                bit = signal.offset + i
                if bit not in writer and bit not in functions:
                    self._bits.put(bit, (one >> i & 1, zero >> i & 1))
                    self._fixed.add(bit)

    def _run_initials(
        self, design: Design, processes: list[Process], writer: dict[int, int], limits: Limits
    ) -> list[Process]:
        """Have the constants that `initial` processes leave behind, tables above all; gives the other processes.

        A case is applied when they have ended long since, and whatever reads them runs then, or when they change.

        Raises
        ------
        HasMemory
            If one of them does anything else.
        """
        first = [p for p in processes if p.kind == "initial" and not p.shadow]
        if not first:
            return processes
        rest = [p for p in processes if p not in first]
        others = [written_bits(p) for p in rest]
        start: dict[int, Bit] = {}
        for signal in design.signals:
            one, zero = power_up_word(signal, ())
            start |= {signal.offset + i: (one >> i & 1, zero >> i & 1) for i in range(signal.width)}
        for process in first:
            written = written_bits(process)
            if not writer.keys().isdisjoint(written) or any(written & bits for bits in others):
                raise HasMemory("start values")
            try:
                nothing = _NothingYet({bit: start[bit] for bit in written})
                effect = Symbolic(self._ops, nothing, limits, design.given).run(process.body)
            except LimitReached as limit:
                raise HasMemory("start values") from limit
            if effect.blocking.keys() & effect.later.keys():
                raise HasMemory("start values")
            left = effect.blocking | effect.later
            for bit in written:
                value, certain = left.get(bit, (start[bit], TRUE))
                if certain != TRUE or value[0] > TRUE or value[1] > TRUE:
                    raise HasMemory("start values")
                self._bits.put(bit, value)
                writer[bit] = _DONE
            self._contents |= written
        return rest

    def _in_level_order(self, processes: list[Process], writer: dict[int, int]) -> Iterator[Process]:
        """Processes, each after those whose results it wakes for. Gates whose inputs are there are done on the way.

        Raises
        ------
        HasMemory
            If there is no such order.
        """
        placed = bytearray(len(processes))
        held: list[int] = []
        for index, process in enumerate(processes):  # most texts are written in level order already
            if lower_gate(process, self._bits.two_state, self._graph):
                placed[index] = 1
            elif _sources(process, index, writer, placed):
                held.append(index)
            else:
                yield process
                placed[index] = 1
        waits = {index: _sources(processes[index], index, writer, placed) for index in held}
        readers: dict[int, list[int]] = {}
        for index, sources in waits.items():
            for source in sources:
                readers.setdefault(source, []).append(index)
        ready = [index for index in held if not waits[index]]
        for index in ready:  # grows while it is walked
            if not lower_gate(processes[index], self._bits.two_state, self._graph):
                yield processes[index]
            for reader in readers.get(index, ()):
                waits[reader].discard(index)
                if not waits[reader]:
                    ready.append(reader)
        if len(ready) < len(held):
            raise HasMemory("a loop")

    def _lower(self, process: Process, limits: Limits) -> None:
        if process.shadow and self._marks:
            own = self._marks.intersection(written_bits(process))
            if own:
                self._fixed |= never_marks(process, own, self._fixed_value, limits)
        fixed = self._fixed if process.shadow else self._fixed | self._contents
        surroundings = _Outside(self._bits, fixed, process)
        effect = Symbolic(self._ops, surroundings, limits).run(process.body)
        if effect.later:
            # Settled, a non-blocking update of a function of the inputs is the same as a blocking one.
            if effect.blocking.keys() & effect.later.keys():
                raise HasMemory("blocking and non-blocking writes to one bit")
        for bit, (value, written) in (effect.blocking | effect.later).items():
            if self._graph.is_tautology(written):
                self._bits.put(bit, value)
            # else it may remember: whoever reads it finds it missing. Scratch variables are read by nobody else.
        if process.kind == "always" and not surroundings.certain_event:
            raise HasMemory("may never run")

    def _fixed_value(self, bit: int) -> Bit | None:
        return self._bits.get(bit) if bit in self._fixed else None

    def run(self, inputs: list[int], full: int) -> dict[int, tuple[int, int]]:
        """Planes (one, zero) of each output bit by its number; `inputs` are the planes of `input_bits`, 1 before 0
        where there are two."""
        planes = iter(self.tape.run(inputs, full))
        return {bit: (next(planes), next(planes)) for bit in self._output_bits}


class _Bits:
    """What is known of each bit by its number: one literal where it is never x or z (else -1), or one for 1 and one for
    0."""

    def __init__(self, bits: int) -> None:
        self.two_state = [-1] * bits
        self.four_state: dict[int, Bit] = {}

    def put(self, bit: int, value: Bit) -> None:
        if value[0] ^ value[1] == 1:
            self.two_state[bit] = value[0]
        else:
            self.two_state[bit] = -1
            self.four_state[bit] = value

    def get(self, bit: int) -> Bit | None:
        literal = self.two_state[bit]
        return (literal, literal ^ 1) if literal >= 0 else self.four_state.get(bit)


class _NothingYet:
    """What an `initial` process sees at the beginning: what it writes itself, and nothing else that stays."""

    def __init__(self, own: dict[int, Bit]) -> None:
        self._own = own

    def read(self, bit: int) -> Bit:
        if bit not in self._own:
            raise HasMemory("start values")
        return self._own[bit]

    def watched(self, bit: int) -> Bit | None:
        return None

    def changed(self, bit: int, old: Bit, new: Bit, active: int) -> None:
        raise AssertionError("nothing is watched here")


class _Outside:
    """What a process sees while it is lowered: bits settled before, and only those it wakes for."""

    def __init__(self, bits: _Bits, fixed: set[int], process: Process) -> None:
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


def _single_writers(design: Design, processes: list[Process], writer: dict[int, int]) -> None:
    """Enter the number of the process that writes each bit into `writer`, which has the inputs and the bits done
    already.

    Raises
    ------
    HasMemory
        If a bit has several writers, or another rule of this module is broken in a way that shows before lowering.
    """
    for index, process in enumerate(processes):
        if process.kind != "continuous" and (process.kind != "always" or any(w.edge != "any" for w in process.watches)):
            raise HasMemory("start values or edges")
        for bit in written_bits(process):
            if bit in writer:
                raise HasMemory("several writers")
            writer[bit] = index
    may_sleep = any(process.kind == "always" for process in processes)
    for signal in design.signals:
        if signal.initial is None:
            continue
        for bit in range(signal.offset, signal.offset + signal.width):
            source = writer.get(bit)
            # An input that starts with a value wakes nobody when a case is the same; it matters where that is what
            # makes
            # a process run. A part's own processes all run at power-up, as gates and assignments do.
            if source is not None and (
                may_sleep if source == _INPUT else source == _DONE or not processes[source].shadow
            ):
                raise HasMemory("start values")


def _sources(process: Process, index: int, writer: dict[int, int], placed: bytearray) -> set[int]:
    """The processes not placed yet whose results a process wakes for."""
    found: set[int] = set()
    for w in process.watches:
        first = w.signal.offset + w.low
        for bit in range(first, first + w.width) if w.width > 1 else (first,):
            source = writer.get(bit, _INPUT)
            if source < 0 or placed[source] or (source == index and process.kind == "always"):
                continue  # an input, there already, or a scratch variable of its own
            found.add(source)
    return found
